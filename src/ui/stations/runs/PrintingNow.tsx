import { counted } from '../../lib/format';
import { localIso } from '../../lib/entry';
import { ledgerOf, type Ledger } from '../../../core/model/ledger';
import type { ContenderMark, PrintEventKind } from '../../../core/model/study';
import type { Stored } from '../../../contract/rows';
import type { LinkMachine } from '../../../contract/runs';
import { useNow } from '../../lib/use-now';
import { PrintClock } from './PrintClock';
import { Badge } from '../../marks/Badge';

interface PrintingNowProps {
  openPrints: readonly Stored<'open_prints'>[];
  events: readonly Stored<'print_events'>[];
  /** What the bench link has heard, by machine. */
  heard: ReadonlyMap<string, LinkMachine>;
  machineOf: Readonly<Record<string, string>>;
  markOf: (contender: string) => ContenderMark | undefined;
  nameOf: (artefact: string) => string;
  onEvent: (print: Stored<'open_prints'>, kind: PrintEventKind) => void;
  onIncident: (print: Stored<'open_prints'>) => void;
  onEnd: (print: Stored<'open_prints'>) => void;
}

const STATES: Record<Ledger['state'], string> = {
  heating: 'heating up',
  printing: 'printing',
  paused: 'paused',
  stalled: 'seems to be stalled',
  ended: 'ended',
};

/** The prints that are running, each with its clock, its ledger and when it should be done. */
export function PrintingNow(props: PrintingNowProps) {
  const { openPrints, events, heard, machineOf, markOf, nameOf } = props;
  const now = useNow();
  return (
    <section className="sheet" aria-labelledby="printing-now">
      <header className="flex items-baseline justify-between border-b border-line px-3 py-2">
        <h2 id="printing-now" className="font-semibold">
          Printing now
        </h2>
        <span className="text-xs text-ink-2">
          {openPrints.length === 0 ? '' : counted(openPrints.length, 'machine')}
        </span>
      </header>
      {openPrints.length === 0 && (
        <p className="px-3 py-3 text-ink-2">
          No machine is printing. Click a dashed box to start a print.
        </p>
      )}
      <ul>
        {openPrints.map((print, at) => {
          const mark = markOf(print.contender_id);
          const own = events.filter((event) => event.print_id === print.print_id);
          const heardOf = heard.get(machineOf[print.contender_id] ?? '');
          const link = heardOf?.print_id === print.print_id ? heardOf : undefined;
          // What the link tells has the sender's clock, which counts on from its last word.
          const until = link ? link.at : now === null ? null : localIso(new Date(now));
          const ledger =
            print.started_at !== null && until !== null
              ? ledgerOf(print.started_at, own, until)
              : null;
          return (
            <RunningPrint
              key={print.print_id}
              print={print}
              mark={mark}
              nameOf={nameOf}
              ledger={ledger}
              link={link}
              until={until}
              onEvent={props.onEvent}
              at={at}
              onIncident={props.onIncident}
              onEnd={props.onEnd}
            />
          );
        })}
      </ul>
    </section>
  );
}

interface RunningPrintProps {
  print: Stored<'open_prints'>;
  mark: ContenderMark | undefined;
  nameOf: PrintingNowProps['nameOf'];
  ledger: Ledger | null;
  link: LinkMachine | undefined;
  until: string | null;
  onEvent: PrintingNowProps['onEvent'];
  at: number;
  onIncident: PrintingNowProps['onIncident'];
  onEnd: PrintingNowProps['onEnd'];
}

/** One print under way, with its keys. */
function RunningPrint({
  print,
  mark,
  nameOf,
  ledger,
  link,
  until,
  onEvent,
  at,
  onIncident,
  onEnd,
}: RunningPrintProps) {
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line-soft px-3 py-2">
      {mark && <Badge mark={mark} />}
      <div className="min-w-0 flex-1 basis-56">
        <p>
          <b>{nameOf(print.artefact_id)}</b> · repeat {print.repeat}
          {ledger && (
            <span
              className={`ml-2 rounded-full border px-1.5 text-2xs ${
                ledger.state === 'stalled'
                  ? 'border-warn bg-warn-soft text-warn'
                  : 'border-line text-ink-2'
              }`}
            >
              {STATES[ledger.state]}
            </span>
          )}
          {link && (
            <span className="ml-1 rounded-full border border-line px-1.5 text-2xs text-ink-2">
              {link.is_up ? 'from the link' : 'link lost'}
            </span>
          )}
        </p>
        <PrintClock print={print} ledger={ledger} progress={link?.progress ?? null} until={until} />
      </div>
      <div className="flex flex-wrap gap-1">
        {ledger && !ledger.isHeatKnown && ledger.state === 'printing' && (
          <Turn label="It is hot" onTurn={() => onEvent(print, 'heated')} />
        )}
        {ledger?.state === 'paused' ? (
          <Turn label="Go on" keys={`Shift ${at + 1}`} onTurn={() => onEvent(print, 'resumed')} />
        ) : ledger?.state === 'stalled' ? (
          <Turn
            label="It moves again"
            keys={`Shift ${at + 1}`}
            onTurn={() => onEvent(print, 'moved')}
          />
        ) : (
          <Turn label="Pause" keys={`Shift ${at + 1}`} onTurn={() => onEvent(print, 'paused')} />
        )}
        <Turn label="Incident" keys={String(at + 1)} onTurn={() => onIncident(print)} />
        <Turn label="End" onTurn={() => onEnd(print)} />
      </div>
    </li>
  );
}

function Turn({ label, keys, onTurn }: { label: string; keys?: string; onTurn: () => void }) {
  return (
    <button type="button" className="action" onClick={onTurn}>
      {label} {keys && <kbd className="key">{keys}</kbd>}
    </button>
  );
}
