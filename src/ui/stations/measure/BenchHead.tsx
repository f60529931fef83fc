import type { ContenderMark } from '../../../core/model/study';
import type { BenchInstrument } from '../../../contract/measure';
import type { SpecimenFacts } from '../../../contract/specimens';
import { signed } from '../../lib/format';
import { Badge } from '../../marks/Badge';
import type { BenchCommand } from './use-reading-field';

/** Stands for an instrument that is not named. */
export const NO_INSTRUMENT = '-';

interface BenchHeadProps {
  studyId: string;
  specimen: SpecimenFacts;
  /** Undefined while it is hidden whose part this is. */
  mark: ContenderMark | undefined;
  isBlind: boolean;
  instruments: readonly BenchInstrument[];
  instrument: string;
  onInstrument: (id: string) => void;
  onCommand: (command: BenchCommand) => void;
}

/** What lies on the bench, and what it is measured with. */
export function BenchHead(props: BenchHeadProps) {
  const { studyId, specimen, mark, isBlind, instruments, instrument, onInstrument, onCommand } =
    props;
  return (
    <div className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1">
      <h1 className="text-lg font-semibold">Measure</h1>
      <span className="rounded-full border border-line bg-sheet px-2">{specimen.artefact}</span>
      {mark && <Badge mark={mark} />}
      <b className="font-mono">{specimen.code ?? specimen.specimen_id}</b>
      <span className="text-xs text-ink-2">
        {isBlind ? (
          'contenders stay hidden'
        ) : (
          <>
            print {specimen.print_id}
            {specimen.copy !== null && `, copy ${specimen.copy}`}, repeat {specimen.repeat}
          </>
        )}
      </span>
      <span className="flex flex-wrap items-center gap-2 md:ml-auto">
        <label className="flex items-center gap-1.5 text-xs text-ink-2">
          instrument
          <select
            className="field w-auto"
            value={instrument}
            onChange={(event) => onInstrument(event.target.value)}
          >
            <option value={NO_INSTRUMENT}>not named</option>
            {instruments.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
                {one.resolution_mm !== null && ` · ${one.resolution_mm} mm`}
                {one.zero_mm !== null && ` · zero ${signed(one.zero_mm, 2)}`}
              </option>
            ))}
          </select>
        </label>
        {!isBlind && (
          <a
            className="action"
            href={`/studies/${studyId}/inspect/photos?specimen=${encodeURIComponent(specimen.specimen_id)}`}
          >
            Open photos
          </a>
        )}
        <button
          type="button"
          className="action"
          aria-pressed={isBlind}
          onClick={() => onCommand('blind')}
        >
          Hidden <kbd className="key hidden md:inline">B</kbd>
        </button>
        <button type="button" className="action" onClick={() => onCommand('next')}>
          Next specimen <kbd className="key hidden md:inline">Ctrl ↵</kbd>
        </button>
      </span>
    </div>
  );
}
