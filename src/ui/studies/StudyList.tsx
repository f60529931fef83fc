import { useState } from 'react';
import { keysOf } from '../../core/model/study';
import { DemoStudies } from './DemoStudies';
import { ImportPanel } from './ImportPanel';
import {
  filteredStudies,
  labelsOf,
  STUDY_ORDERS,
  titleOfCopy,
  type ListedStudy,
  type StudyFilter,
} from './listing';
import { NewStudy } from './NewStudy';
import { PracticeStart } from './PracticeStart';
import { StudyLine } from './StudyLine';
import { useShelf } from './use-shelf';

/** What the reader may do with studies. */
export interface Rights {
  edit: boolean;
  delete: boolean;
  export: boolean;
}

interface StudyListProps {
  studies: readonly ListedStudy[];
  /** A machine of the workshop that a new study begins with; none where it is empty. */
  machine: string;
  /** The panel that is open first. */
  panel: 'new' | 'import' | null;
  /** What the reader may do: other actions are not offered. */
  may: Rights;
  /** How many deleted studies can be brought back, and how many of them are of the demo. */
  inBin: { studies: number; demo: number };
}

const EVERYTHING: StudyFilter = { text: '', label: null, isArchived: false, order: 'changed' };

/** All studies, with search, order, labels and archive; a new one begins here. */
export function StudyList({ studies, machine, panel: first, may, inBin }: StudyListProps) {
  const [panel, setPanel] = useState<'new' | 'import' | null>(machine === '' ? first : 'new');
  const [copied, setCopied] = useState('');
  const [filter, setFilter] = useState(EVERYTHING);
  const { all, faultOf, put } = useShelf(studies);
  const shown = filteredStudies(all, filter);
  const source = all.find(({ study_id }) => study_id === copied);
  const titles = all.map(({ title }) => title);
  return (
    <>
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h1 className="text-lg font-semibold">Studies</h1>
        {may.edit && (
          <p className="flex gap-2">
            <PracticeStart />
            <button type="button" className="action" onClick={() => setPanel('import')}>
              Import study
            </button>
            <button
              type="button"
              className="action action-main"
              onClick={() => {
                setCopied('');
                setPanel('new');
              }}
            >
              New study
            </button>
          </p>
        )}
      </div>
      {panel === 'new' && (
        <NewStudy
          key={copied}
          studies={studies}
          again={copied}
          title={source ? titleOfCopy(source.title, titles) : ''}
          machine={machine}
          onCancel={() => setPanel(null)}
        />
      )}
      {panel === 'import' && <ImportPanel onCancel={() => setPanel(null)} />}
      {studies.length === 0 && panel === null && (
        <p className="mt-3 sheet p-4">
          There are no studies yet. Start one with “New study”, or import a study package: a folder
          or a zip of CSV tables. New here? A practice study leads you through the ten steps.
        </p>
      )}
      {studies.length > 0 && (
        <StudyFilters filter={filter} setFilter={setFilter} studies={all} found={shown.length} />
      )}
      <ul className="mt-2 grid gap-2">
        {shown.map((study) => (
          <StudyLine
            key={study.study_id}
            study={study}
            may={may}
            fault={faultOf(study.study_id)}
            onShelve={(shelf) => put(study, shelf)}
            onDuplicate={() => {
              setCopied(study.study_id);
              setPanel('new');
              window.scrollTo({ top: 0 });
            }}
          />
        ))}
      </ul>
      {may.delete && (
        <DemoStudies here={all.filter(({ isDemo }) => isDemo).length} inBin={inBin.demo} />
      )}
      {may.delete && inBin.studies > 0 && (
        <p className="mt-3 text-xs">
          <a href="/bin">Deleted items ({inBin.studies})</a>
        </p>
      )}
    </>
  );
}

interface StudyFiltersProps {
  filter: StudyFilter;
  setFilter: (filter: StudyFilter) => void;
  studies: readonly ListedStudy[];
  found: number;
}

/** Search, labels, archive and order. */
function StudyFilters({ filter, setFilter, studies, found }: StudyFiltersProps) {
  const archived = studies.filter(({ isArchived }) => isArchived).length;
  const labels = labelsOf(studies);
  return (
    <div className="mt-3 flex flex-wrap items-end gap-x-4 gap-y-2 text-xs text-ink-2" role="search">
      <label className="min-w-48 flex-1 sm:max-w-72">
        Search
        <input
          type="search"
          className="field"
          value={filter.text}
          onChange={(event) => setFilter({ ...filter, text: event.target.value })}
        />
      </label>
      <label>
        Sort by
        <select
          className="field"
          value={filter.order}
          onChange={(event) => {
            const order = keysOf(STUDY_ORDERS).find((one) => one === event.target.value);
            if (order) setFilter({ ...filter, order });
          }}
        >
          {keysOf(STUDY_ORDERS).map((order) => (
            <option key={order} value={order}>
              {STUDY_ORDERS[order]}
            </option>
          ))}
        </select>
      </label>
      {labels.length > 0 && (
        <label>
          Label
          <select
            className="field"
            value={filter.label ?? ''}
            onChange={(event) => setFilter({ ...filter, label: event.target.value || null })}
          >
            <option value="">all</option>
            {labels.map((label) => (
              <option key={label}>{label}</option>
            ))}
          </select>
        </label>
      )}
      {(archived > 0 || filter.isArchived) && (
        <label className="flex items-center gap-1.5 pb-1.5">
          <input
            type="checkbox"
            checked={filter.isArchived}
            onChange={(event) => setFilter({ ...filter, isArchived: event.target.checked })}
          />
          Archived ({archived})
        </label>
      )}
      <p className="pb-1.5" role="status">
        {found === 0 ? 'No study matches.' : `${found} shown`}
      </p>
    </div>
  );
}
