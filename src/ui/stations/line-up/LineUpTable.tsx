import { useState, type SetStateAction, type Dispatch } from 'react';
import type { Fairness } from '../../../core/answers/fairness';
import { MACHINE_FACTS, type MachineFact } from '../../../core/answers/line-up/facts';
import {
  changesOf,
  settingRows,
  type StatedFile,
  type SettingRow,
} from '../../../core/answers/line-up/settings';
import { columnLabel, inWords } from '../../../core/model/study/labels';
import { isOneOf, type ContenderMark } from '../../../core/model/study';
import type { LineUpPage } from '../../../contract/line-up';
import type { Stored } from '../../../contract/rows';
import { FairnessSign } from '../../fairness/FairnessMark';
import { Leaving } from '../../kit/Leaving';
import { Badge } from '../../marks/Badge';
import { Cell, moveInGrid } from './Cell';
import { useLineUp } from './use-line-up';

interface LineUpTableProps extends Pick<
  LineUpPage,
  'rows' | 'stated' | 'firmware' | 'today' | 'unequal'
> {
  studyId: string;
  marks: readonly ContenderMark[];
  fairness: readonly Fairness[];
  reference: string | null;
  onOpen?: (contenderId: string) => void;
}

/** How many settings are shown at first. */
const FEW = 8;
const RANK = ['clean', 'noted', 'confounded'] as const;

/** Who competes with what: contenders as columns, facts and settings as rows, typed in place. */
export function LineUpTable(props: LineUpTableProps) {
  const { studyId, marks, fairness, reference, stated, firmware, today } = props;
  const { rows, changeMachine, changeProfile, setSetting } = useLineUp(studyId, props.rows);
  const [isWhole, setWhole] = useState(false);
  const [adding, setAdding] = useState('');
  const [added, setAdded] = useState<string[]>([]);
  const { columns, settings, more, shown } = settingsShown({ marks, rows, stated, added, isWhole });
  const worstOf = (id: string) => {
    const own = fairness.filter((row) => row.contender === id);
    const worst = RANK.findLast((rank) => own.some((row) => row.result === rank));
    return worst && { worst, n: own.filter((row) => row.result === worst).length };
  };
  let line = -1;
  return (
    <div className="overflow-x-auto sheet" onKeyDown={moveInGrid} role="presentation">
      <LineUpGrid
        columns={columns}
        onOpen={props.onOpen}
        reference={reference}
        worstOf={worstOf}
        unequal={props.unequal}
        line={line}
        firmware={firmware}
        today={today}
        changeMachine={changeMachine}
        changeProfile={changeProfile}
        rows={rows}
        stated={stated}
        shown={shown}
        setSetting={setSetting}
      />
      <SettingKeys
        settings={settings}
        shown={shown}
        more={more}
        setWhole={setWhole}
        adding={adding}
        setAdding={setAdding}
        setAdded={setAdded}
      />
    </div>
  );
}

interface LineUpGridProps {
  columns: {
    mark: ContenderMark;
    contender: Stored<'contenders'>;
    machine: Stored<'machines'>;
    profile: Stored<'profiles'>;
  }[];
  onOpen: ((contenderId: string) => void) | undefined;
  reference: LineUpTableProps['reference'];
  worstOf: (id: string) => { worst: 'clean' | 'noted' | 'confounded'; n: number } | undefined;
  unequal: string[];
  line: number;
  firmware: LineUpTableProps['firmware'];
  today: LineUpTableProps['today'];
  changeMachine: (
    machineId: string,
    change: Readonly<Record<string, unknown>>,
  ) => Promise<string | null>;
  changeProfile: (
    profileId: string,
    change: Readonly<Record<string, unknown>>,
  ) => Promise<string | null>;
  rows: ReturnType<typeof useLineUp>['rows'];
  stated: StatedFile[];
  shown: SettingRow[];
  setSetting: (profileId: string, key: string, value: string) => Promise<string | null>;
}

/** Machines, profiles and settings, contender by contender. */
function LineUpGrid({
  columns,
  onOpen,
  reference,
  worstOf,
  unequal,
  line,
  firmware,
  today,
  changeMachine,
  changeProfile,
  rows,
  stated,
  shown,
  setSetting,
}: LineUpGridProps) {
  return (
    <Leaving name="Line-up">
      <table className="w-max min-w-full">
        <LineUpHeads columns={columns} onOpen={onOpen} reference={reference} />
        <tbody>
          <FairnessRow
            columns={columns}
            worstOf={worstOf}
            reference={reference}
            unequal={unequal}
          />
          <GroupHead text="The machine" span={columns.length + 1} />
          {MACHINE_FACTS.map((fact) => {
            line += 1;
            return (
              <FactRow
                key={fact.key}
                fact={fact}
                columns={columns}
                firmware={firmware}
                today={today}
                line={line}
                changeMachine={changeMachine}
              />
            );
          })}
          <GroupHead text="The profile" span={columns.length + 1} />
          <tr className="border-b border-line-soft">
            <RowHead text="called" />
            {columns.map(({ profile, mark }, at) => (
              <Cell
                key={mark.contender_id}
                row={line + 1}
                column={at}
                label={`${mark.machineName} ${mark.variant}, name of the profile`}
                text={profile.name}
                onCommit={(typed) =>
                  typed.trim() === ''
                    ? Promise.resolve('it needs a name')
                    : changeProfile(profile.profile_id, { name: typed.trim() })
                }
              />
            ))}
          </tr>
          <tr className="border-b border-line-soft">
            <RowHead text="whose" />
            {columns.map(({ profile, mark }) => {
              const count = changesOf(profile, rows.profile_settings, stated, rows.contenders);
              return (
                <td key={mark.contender_id} className="px-2 py-1">
                  {profile.kind === 'stock'
                    ? 'as shipped'
                    : `ours${count === null ? '' : `, ${count} ${count === 1 ? 'change' : 'changes'}`}`}
                </td>
              );
            })}
          </tr>
          {shown.map((setting, at) => (
            <SettingCells
              key={setting.key}
              setting={setting}
              columns={columns}
              line={line}
              at={at}
              setSetting={setSetting}
            />
          ))}
        </tbody>
      </table>
    </Leaving>
  );
}

interface SettingsShownGiven {
  marks: LineUpTableProps['marks'];
  rows: ReturnType<typeof useLineUp>['rows'];
  stated: StatedFile[];
  added: string[];
  isWhole: boolean;
}

/** Who stands in which column, and which settings are shown. */
function settingsShown({ marks, rows, stated, added, isWhole }: SettingsShownGiven) {
  const columns = marks.flatMap((mark) => {
    const contender = rows.contenders.find((one) => one.contender_id === mark.contender_id);
    const machine = rows.machines.find((one) => one.machine_id === contender?.machine_id);
    const profile = rows.profiles.find((one) => one.profile_id === contender?.profile_id);
    return contender && machine && profile ? [{ mark, contender, machine, profile }] : [];
  });
  const settings = settingRows(
    columns.map(({ contender }) => contender),
    rows.profiles,
    rows.profile_settings,
    stated,
  );
  const more = added
    .filter((key) => settings.every((row) => row.key !== key))
    .map((key) => ({
      key,
      label: columnLabel(key).label,
      isDifferent: false,
      cells: columns.map(() => ({ value: null, differs: false, otherwise: null, isStated: false })),
    }));
  const differing = settings.filter((row) => row.isDifferent).length;
  const shown = [...(isWhole ? settings : settings.slice(0, Math.max(FEW, differing))), ...more];
  return { columns, settings, more, shown };
}

interface LineUpHeadsProps {
  columns: {
    mark: ContenderMark;
    contender: Stored<'contenders'>;
    machine: Stored<'machines'>;
    profile: Stored<'profiles'>;
  }[];
  onOpen: ((contenderId: string) => void) | undefined;
  reference: LineUpTableProps['reference'];
}

/** Who is compared. */
function LineUpHeads({ columns, onOpen, reference }: LineUpHeadsProps) {
  return (
    <thead>
      <tr className="border-b border-line">
        <th className="sticky left-0 z-10 w-[150px] bg-sheet th">
          <span className="sr-only">what</span>
        </th>
        {columns.map(({ mark }) => (
          <th key={mark.contender_id} className="min-w-[140px] px-2 py-1.5 text-left font-normal">
            <button
              type="button"
              className="flex items-center gap-2 border-0 bg-transparent p-0 text-left"
              data-hint="open what is known of it"
              onClick={() => onOpen?.(mark.contender_id)}
            >
              <Badge mark={mark} isReference={mark.contender_id === reference} isDecorative />
              <span>
                <b>{mark.machineName}</b>{' '}
                <span className="block text-2xs text-ink-2">{mark.variant}</span>
              </span>
            </button>
          </th>
        ))}
      </tr>
    </thead>
  );
}

interface FairnessRowProps {
  columns: {
    mark: ContenderMark;
    contender: Stored<'contenders'>;
    machine: Stored<'machines'>;
    profile: Stored<'profiles'>;
  }[];
  worstOf: (id: string) => { worst: 'clean' | 'noted' | 'confounded'; n: number } | undefined;
  reference: LineUpTableProps['reference'];
  unequal: string[];
}

/** What is unequal, contender by contender. */
function FairnessRow({ columns, worstOf, reference, unequal }: FairnessRowProps) {
  return (
    <tr className="border-b border-line bg-desk/30">
      <th scope="row" className="sticky left-0 z-10 bg-sheet px-2 py-1 text-left">
        fair?
      </th>
      {columns.map(({ mark }) => {
        const found = worstOf(mark.contender_id);
        return (
          <td key={mark.contender_id} id={`fair-${mark.contender_id}`} className="px-2 py-1">
            {mark.contender_id === reference ? (
              'reference'
            ) : found ? (
              <a
                href="#fairness"
                className="inline-flex min-h-[24px] items-center gap-1 no-underline"
              >
                <FairnessSign result={found.worst} />{' '}
                <span className="text-2xs text-ink-2">· {found.n}</span>
              </a>
            ) : unequal.includes(mark.contender_id) ? (
              <a
                href="#fairness"
                className="inline-flex min-h-[24px] items-center gap-1 no-underline"
              >
                <FairnessSign
                  result="confounded"
                  title="its planned files differ from the reference’s in what must be equal"
                />{' '}
                <span className="text-2xs text-ink-2">by its files</span>
              </a>
            ) : (
              <span className="text-2xs text-ink-2">nothing printed of both</span>
            )}
          </td>
        );
      })}
    </tr>
  );
}

interface FactRowProps {
  fact: MachineFact;
  columns: {
    mark: ContenderMark;
    contender: Stored<'contenders'>;
    machine: Stored<'machines'>;
    profile: Stored<'profiles'>;
  }[];
  firmware: LineUpTableProps['firmware'];
  today: LineUpTableProps['today'];
  line: number;
  changeMachine: (
    machineId: string,
    change: Readonly<Record<string, unknown>>,
  ) => Promise<string | null>;
}

/** One fact of the machines. */
function FactRow({ fact, columns, firmware, today, line, changeMachine }: FactRowProps) {
  return (
    <tr className="border-b border-line-soft">
      <RowHead text={fact.label} />
      {columns.map(({ machine, mark }, at) => {
        const text = fact.show(machine);
        const before = columns[at - 1];
        const isDitto = before?.machine.machine_id === machine.machine_id && text !== null;
        const seen = fact.key === 'firmware' ? (firmware[machine.machine_id] ?? []) : [];
        const turned = seen.some((one) => one !== text)
          ? [...seen.filter((one) => one !== text), text].filter(Boolean).join(' → ')
          : text;
        const other = (today[machine.machine_id] ?? []).filter((one) =>
          isOneOf(fact.columns, one.name),
        );
        const now = fact.show({
          ...machine,
          ...Object.fromEntries(other.map((one) => [one.name, one.is])),
        });
        return (
          <Cell
            key={mark.contender_id}
            row={line}
            column={at}
            label={`${mark.machineName} ${mark.variant}, ${fact.label}`}
            text={turned}
            typed={
              fact.choices ? String(machine[fact.key as keyof typeof machine] ?? '') : (text ?? '')
            }
            isDitto={isDitto}
            {...(fact.choices && {
              choices: fact.choices.map((value) => ({ value, label: inWords(value) })),
            })}
            more={other.length > 0 && !isDitto ? `is ${now} today` : null}
            isWarning
            onCommit={async (typed) => {
              const written = fact.write(typed);
              return 'fault' in written
                ? written.fault
                : changeMachine(machine.machine_id, written.change);
            }}
          />
        );
      })}
    </tr>
  );
}

interface SettingCellsProps {
  setting: SettingRow;
  columns: {
    mark: ContenderMark;
    contender: Stored<'contenders'>;
    machine: Stored<'machines'>;
    profile: Stored<'profiles'>;
  }[];
  line: number;
  at: number;
  setSetting: (profileId: string, key: string, value: string) => Promise<string | null>;
}

/** One setting of the profiles. */
function SettingCells({ setting, columns, line, at, setSetting }: SettingCellsProps) {
  return (
    <tr className="border-b border-line-soft">
      <RowHead text={setting.label} />
      {columns.map(({ profile, mark }, column) => {
        const cell = setting.cells[column];
        return (
          <Cell
            key={mark.contender_id}
            row={line + 2 + at}
            column={column}
            label={`${mark.machineName} ${mark.variant}, ${setting.label}`}
            text={cell?.value ?? null}
            isBold={(cell?.differs ?? false) && cell?.value !== null}
            {...(cell?.isStated && { hint: 'of its sliced files' })}
            more={cell?.otherwise ?? null}
            onCommit={(typed) => setSetting(profile.profile_id, setting.key, typed)}
          />
        );
      })}
    </tr>
  );
}

interface SettingKeysProps {
  settings: SettingRow[];
  shown: SettingRow[];
  more: readonly { key: string }[];
  setWhole: Dispatch<SetStateAction<boolean>>;
  adding: string;
  setAdding: Dispatch<SetStateAction<string>>;
  setAdded: Dispatch<SetStateAction<string[]>>;
}

/** All settings or those that differ, and one more. */
function SettingKeys({
  settings,
  shown,
  more,
  setWhole,
  adding,
  setAdding,
  setAdded,
}: SettingKeysProps) {
  return (
    <p className="flex flex-wrap items-center gap-3 px-2 py-1.5 text-xs">
      {settings.length > shown.length - more.length && (
        <button type="button" className="action" onClick={() => setWhole(true)}>
          all {settings.length} settings
        </button>
      )}
      <input
        className="field w-56"
        aria-label="Add a setting"
        placeholder="+ a setting: its name"
        value={adding}
        onChange={(event) => setAdding(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || adding.trim() === '') return;
          setAdded((all) => [...all, adding.trim()]);
          setAdding('');
        }}
      />
    </p>
  );
}

const RowHead = ({ text }: { text: string }) => (
  <th
    scope="row"
    className="sticky left-0 z-10 bg-sheet px-2 py-1 text-left text-xs font-normal text-ink-2"
  >
    {text}
  </th>
);

const GroupHead = ({ text, span }: { text: string; span: number }) => (
  <tr className="border-b border-line bg-desk/60">
    <th colSpan={span} className="px-2 py-1 text-left">
      {text}
    </th>
  </tr>
);
