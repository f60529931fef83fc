import { inWords } from '../../core/model/study/labels';
import type { ListedMachine } from '../../contract/workshop';
import { Leaving } from '../kit/Leaving';
import { counted, fixed, percent, ends } from '../lib/format';
import { scaleFor, StripAxis, type StripScale } from '../marks/DotStrip';
import { UnknownCell } from '../marks/Unknown';
import { IntervalStrip } from './IntervalStrip';
import { place } from './say';

const SHARE: StripScale = { low: 0, high: 1, ticks: [0, 0.5, 1] };

/** Every machine of the workshop as a row: what it did, how it ended, where it stands. */
export function MachineList(props: {
  machines: readonly ListedMachine[];
  standings: { artefact: string; uid: string } | null;
}) {
  const { machines, standings } = props;
  const rates = machines.flatMap((one) =>
    [one.per_100_h.high ?? [], one.per_100_h.estimate ?? []].flat(),
  );
  const scale = scaleFor([0, ...rates.map((rate) => Math.min(rate, 60))]);
  return (
    <Leaving isPicture name="Machines">
      <table className="w-full min-w-[760px]">
        <thead>
          <tr className="border-b border-line">
            <th className="th pl-3">machine</th>
            <th className="th text-right">prints</th>
            <th className="hidden th text-right md:table-cell">hours</th>
            <th className="hidden th text-right md:table-cell">metres</th>
            <th className="th" colSpan={2}>
              success
            </th>
            <th className="th" colSpan={2}>
              incidents in 100 h
            </th>
            <th className="th">firmware</th>
            <th className="th">{standings ? `on the ${standings.artefact}` : 'standing'}</th>
          </tr>
        </thead>
        <tbody>
          {machines.map((one, at) => (
            <MachineRow key={one.thing.uid} machine={one} hue={at % 8} scale={scale} />
          ))}
          <tr>
            <td colSpan={3} />
            <td colSpan={2} className="hidden md:table-cell" />
            <td className="w-[120px] p-0 md:w-[170px]">
              <StripAxis scale={SHARE} digits={2} />
            </td>
            <td />
            <td className="w-[120px] p-0 md:w-[170px]">
              <StripAxis scale={scale} digits={0} />
            </td>
            <td colSpan={2} className="px-3 text-2xs text-ink-2">
              bars: 95 % of what is known
            </td>
          </tr>
        </tbody>
      </table>
    </Leaving>
  );
}

function MachineRow({
  machine,
  hue,
  scale,
}: {
  machine: ListedMachine;
  hue: number;
  scale: StripScale;
}) {
  const { thing, prints, good, hours, metres, success, per_100_h, outdated } = machine;
  const { maker, kinematics, firmware } = thing.facts;
  const kind = [maker, kinematics && inWords(String(kinematics))].filter(Boolean).join(' · ');
  const rate = per_100_h.estimate;
  return (
    <tr className="border-b border-line-soft">
      <th scope="row" className="py-1.5 pl-3 text-left font-normal">
        <a href={`/machines/${thing.uid}`} className="font-semibold no-underline hover:underline">
          {thing.name}
        </a>
        <span className="block text-2xs text-ink-2">
          {kind && (
            <span className="hidden md:inline">
              {kind}
              {machine.studies.length > 0 && ' · '}
            </span>
          )}
          {machine.studies.length > 0 && counted(machine.studies.length, 'study', 'studies')}
        </span>
      </th>
      <td className="px-2 text-right font-mono">{prints}</td>
      <td className="hidden px-2 text-right font-mono md:table-cell">{fixed(hours, 1)}</td>
      <td className="hidden px-2 text-right font-mono md:table-cell">{fixed(metres, 0)}</td>
      {success.estimate === null ? (
        <UnknownCell why="no prints yet" span={2} />
      ) : (
        <>
          <td className="px-2 text-right font-mono whitespace-nowrap">
            {percent(success.estimate)}
            <span className="block text-2xs text-ink-2">
              {good} of {prints}
            </span>
          </td>
          <td className="w-[120px] p-0 md:w-[170px]">
            <IntervalStrip
              hue={hue}
              scale={SHARE}
              interval={success}
              label={`success ${ends(success, percent)}`}
            />
          </td>
        </>
      )}
      {rate === null ? (
        <UnknownCell why="no hours yet" span={2} />
      ) : (
        <>
          <td className="px-2 text-right font-mono whitespace-nowrap">
            {fixed(rate, 1)}
            <span className="block text-2xs text-ink-2">
              {counted(machine.incidents, 'incident')}
            </span>
          </td>
          <td className="w-[120px] p-0 md:w-[170px]">
            <IntervalStrip
              hue={hue}
              scale={scale}
              interval={per_100_h}
              label={`${ends(per_100_h, (value) => fixed(value, 1))} incidents in 100 h`}
            />
          </td>
        </>
      )}
      {firmware ? (
        <td className="px-2 font-mono">
          {firmware}
          {outdated > 0 && (
            <span className="block font-sans text-2xs text-warn">
              {counted(outdated, 'print')} of another: test again
            </span>
          )}
        </td>
      ) : (
        <UnknownCell why="firmware not known" />
      )}
      <td className="px-3">
        {machine.place ? place(machine.place) : <span className="text-ink-2">not printed</span>}
      </td>
    </tr>
  );
}
