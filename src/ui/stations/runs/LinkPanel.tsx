import { useState } from 'react';
import type { StudyLink } from '../../../contract/runs';
import { readAgain } from '../../kit/leave';
import { callApi, failureText } from '../../kit/request';
import { Leaving } from '../../kit/Leaving';
import { counted, percent, shortTime } from '../../lib/format';

interface LinkPanelProps {
  studyId: string;
  link: StudyLink;
  /** Name of each machine, by its id. */
  machines: Readonly<Record<string, string>>;
}

/** Why a message was not followed, and what to do. */
const REASONS: Record<string, string> = {
  'too long': 'longer than 16 KiB: let the machine send less',
  malformed: 'not the JSON that the link expects: compare it with the bench link’s description',
  repeated: 'heard before: this happens after a lost connection and does no harm',
  late: 'older than what was heard already: does no harm',
  'ahead of time': 'more than 36 hours ahead of this computer’s clock: set the machine’s clock',
  'no plan for it': 'no print is planned that fits: plan one, or start it by hand',
  'could not be saved': 'the database refused it: the log has the reason',
};

/** The bench link: where machines reach it and under which ids, what it heard, and what it dropped and why. */
export function LinkPanel({ studyId, link, machines }: LinkPanelProps) {
  const [message, setMessage] = useState<string | null>(null);
  const turn = async () => {
    try {
      await callApi('POST', `/studies/${studyId}/link`, { is_linked: !link.isLinked });
      void readAgain();
    } catch (error) {
      setMessage(failureText(error));
    }
  };
  const dropped = link.dropped.reduce((sum, one) => sum + one.count, 0);
  const heard = new Map(link.machines.map((machine) => [machine.machine_id, machine]));
  const strangers = link.strangers.filter((one) => !(one.machine_id in machines));
  return (
    <section className="mt-3 sheet" aria-labelledby="bench-link">
      <header className="flex flex-wrap items-center justify-between gap-2 border-b border-line px-3 py-2">
        <div>
          <h2 id="bench-link" className="font-semibold">
            Bench link
          </h2>
          <p className="text-xs text-ink-2">
            {link.isLinked
              ? 'Machines on the link start, time and end their prints here; ' +
                `${counted(link.machines.length, 'machine')} heard, ${counted(dropped, 'message')} ` +
                'dropped. What a person enters wins.'
              : 'Off: everything is entered by hand.'}
          </p>
        </div>
        <button type="button" className="action" onClick={() => void turn()}>
          {link.isLinked ? 'Disconnect this study' : 'Connect this study'}
        </button>
      </header>
      {message && (
        <p role="alert" className="px-3 py-1 text-warn">
          {message}
        </p>
      )}
      {link.isLinked && (
        <>
          <p className="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 py-2 text-xs">
            Machines send MQTT to
            {link.addresses.map((address) => (
              <Copyable key={address} text={address} />
            ))}
            <span className="text-ink-2">
              topic vergleich/1/machine/<i>id</i>/state
            </span>
          </p>
          <Leaving>
            <HeardMachines machines={machines} heard={heard} />
          </Leaving>
          {strangers.length > 0 && (
            <p className="px-3 py-2 text-xs text-warn">
              Heard under an id that no study on the link has:{' '}
              {strangers
                .map((one) => `${one.machine_id} (${one.count} ×, last ${shortTime(one.last_at)})`)
                .join(', ')}
              . Set one of the ids above on that machine.
            </p>
          )}
        </>
      )}
      {dropped > 0 && (
        <ul className="px-3 py-2 text-xs text-ink-2" aria-label="Dropped messages">
          {link.dropped.map((one) => (
            <li key={one.reason}>
              {counted(one.count, 'message')} dropped: {REASONS[one.reason] ?? one.reason}. Last{' '}
              {shortTime(one.last_at)}
              {one.last_machine !== null && `, ${machines[one.last_machine] ?? one.last_machine}`}.
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

interface HeardMachinesProps {
  machines: LinkPanelProps['machines'];
  heard: ReadonlyMap<string, StudyLink['machines'][number]>;
}

/** What was heard of each machine. */
function HeardMachines({ machines, heard }: HeardMachinesProps) {
  return (
    <table className="w-full text-xs">
      <thead>
        <tr className="border-b border-line">
          <th className="th">machine</th>
          <th className="th">its id on the link</th>
          <th className="th">state</th>
          <th className="th text-right">progress</th>
          <th className="th">last heard</th>
          <th className="th">connection</th>
        </tr>
      </thead>
      <tbody>
        {Object.entries(machines).map(([id, name]) => {
          const machine = heard.get(id);
          return (
            <tr key={id} className="border-b border-line-soft">
              <th scope="row" className="px-2 py-1 text-left font-normal">
                {name}
              </th>
              <td className="px-2">
                <Copyable text={id} />
              </td>
              {machine ? (
                <>
                  <td className="px-2">{machine.state}</td>
                  <td className="px-2 text-right font-mono">
                    {machine.progress === null ? '' : percent(machine.progress)}
                  </td>
                  <td className="px-2 font-mono">{shortTime(machine.at)}</td>
                  <td className={`px-2 ${machine.is_up ? '' : 'text-warn'}`}>
                    {machine.is_up ? 'connected' : 'lost'}
                  </td>
                </>
              ) : (
                <td className="px-2 text-ink-2" colSpan={4}>
                  not heard yet
                </td>
              )}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** Something that is typed elsewhere: shown as it is, copied with one press. */
function Copyable({ text }: { text: string }) {
  const [isCopied, setCopied] = useState(false);
  return (
    <span className="inline-flex items-center gap-1">
      <code className="font-mono">{text}</code>
      <button
        type="button"
        className="action"
        aria-label={`Copy ${text}`}
        onClick={() => {
          void navigator.clipboard.writeText(text).then(() => setCopied(true));
        }}
      >
        {isCopied ? 'Copied' : 'Copy'}
      </button>
    </span>
  );
}
