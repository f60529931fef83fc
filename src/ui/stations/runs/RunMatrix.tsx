import { ContenderHeads } from '../../marks/ContenderHeads';
import type { ContenderMark } from '../../../core/model/study';
import type { CellTally } from '../../../contract/plan';
import { duration } from '../../lib/format';
import { RunMark, RUN_WORDS } from '../../marks/RunMark';
import { countOf, medianTime, nextRepeat, type RunCell } from './runs-model';
import { Leaving } from '../../kit/Leaving';

interface RunMatrixProps {
  marks: readonly ContenderMark[];
  reference: string | null;
  artefacts: readonly { id: string; name: string }[];
  cells: ReadonlyMap<string, readonly RunCell[]>;
  /** How all prints ended, those too that are not shown one by one. */
  tallies: readonly CellTally[];
  onOpen: (cell: RunCell) => void;
}

/** Artefact × contender × repeat: what is printed, what is due. */
export function RunMatrix({ marks, reference, artefacts, cells, tallies, onOpen }: RunMatrixProps) {
  return (
    <div className="overflow-x-auto sheet">
      <Leaving isPicture>
        <table className="w-full min-w-[640px]">
          <ContenderHeads hasNames marks={marks} reference={reference} />
          <tbody>
            {artefacts.map((artefact) => (
              <tr key={artefact.id} className="border-b border-line-soft align-top">
                <th scope="row" className="px-2 py-2 text-left font-medium">
                  {artefact.name}
                </th>
                {marks.map((mark) => {
                  const own = cells.get(`${artefact.id} ${mark.contender_id}`) ?? [];
                  const time = medianTime(own);
                  const repeat = nextRepeat(own);
                  return (
                    <td key={mark.contender_id} className="px-2 py-1.5">
                      <div className="flex flex-wrap gap-0.5">
                        {own.map((cell) => (
                          <button
                            key={`${cell.repeat} ${String(cell.print?.print_id)}`}
                            type="button"
                            className="min-h-[24px] rounded-sm p-0.5 hover:bg-plum-soft"
                            aria-label={
                              `${artefact.name}, ${mark.label}, repeat ${cell.repeat}: ` +
                              RUN_WORDS[cell.state]
                            }
                            data-hint={`repeat ${cell.repeat}: ${RUN_WORDS[cell.state]}`}
                            onClick={() => onOpen(cell)}
                          >
                            <RunMark state={cell.state} />
                          </button>
                        ))}
                        <button
                          type="button"
                          className="min-h-[24px] min-w-[24px] rounded-sm text-ink-2 hover:bg-plum-soft hover:text-plum"
                          aria-label={`Add a print: ${artefact.name}, ${mark.label}`}
                          data-hint="add a print"
                          onClick={() =>
                            onOpen({
                              contender: mark.contender_id,
                              artefact: artefact.id,
                              repeat,
                              state: 'due',
                              print: null,
                            })
                          }
                        >
                          +
                        </button>
                      </div>
                      <Earlier tallies={tallies} own={own} />
                      <div className="font-mono text-2xs text-ink-2">
                        {time === null ? '' : duration(time)}
                      </div>
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </Leaving>
    </div>
  );
}

/** How many prints of a cell lie before those that are shown. */
function Earlier({ tallies, own }: { tallies: readonly CellTally[]; own: readonly RunCell[] }) {
  const [first] = own;
  const tally = tallies.find(
    (one) => one.contender_id === first?.contender && one.artefact_id === first.artefact,
  );
  const shown = own.filter((cell) => cell.state !== 'due' && cell.state !== 'open').length;
  const earlier = countOf(tally) - shown;
  if (!tally || earlier <= 0) return null;
  return (
    <div className="text-2xs text-ink-2">
      {earlier} more; of all {countOf(tally)}: {tally.success} good, {tally.failed} failed
    </div>
  );
}
