import { useState } from 'react';
import type { LinkState } from '../../../data';
import { callApi, failureText } from '../../kit/request';
import { counted, percent, shortTime } from '../../lib/format';
import { Leaving } from '../../kit/Leaving';

interface LinkPanelProps {
  studyId: string;
  link: LinkState;
  machines: Readonly<Record<string, string>>;
}

/** The bench link: what it hears of each machine, and what it dropped. */
export function LinkPanel({ studyId, link, machines }: LinkPanelProps) {
  const [message, setMessage] = useState<string | null>(null);
  const turn = async () => {
    try {
      await callApi('POST', `/studies/${studyId}/link`, { is_linked: !link.isLinked });
      location.reload();
    } catch (error) {
      setMessage(failureText(error));
    }
  };
  const dropped = link.dropped.reduce((sum, one) => sum + one.count, 0);
  return (
    <section className="mt-3 sheet" aria-labelledby="bench-link">
      <header className="flex flex-wrap items-center justify-between gap-2 border-b border-line px-3 py-2">
        <div>
          <h2 id="bench-link" className="font-semibold">
            Bench link
          </h2>
          <p className="text-xs text-ink-2">
            {link.isLinked
              ? `Machines that speak on the link start, time and end their prints here; ${counted(link.machines.length, 'machine')} heard, ${counted(dropped, 'message')} dropped. A person’s entry wins.`
              : 'Off: everything is entered by hand.'}
          </p>
        </div>
        <button type="button" className="action" onClick={() => void turn()}>
          {link.isLinked ? 'Take this study off the link' : 'Put this study on the link'}
        </button>
      </header>
      {message && (
        <p role="alert" className="px-3 py-1 text-warn">
          {message}
        </p>
      )}
      {link.isLinked && link.machines.length > 0 && (
        <Leaving>
          <table className="w-full text-xs">
            <thead>
              <tr className="border-b border-line">
                <th className="th">machine</th>
                <th className="th">says</th>
                <th className="th text-right">progress</th>
                <th className="th">last heard</th>
                <th className="th">connection</th>
              </tr>
            </thead>
            <tbody>
              {link.machines.map((machine) => (
                <tr key={machine.machine_id} className="border-b border-line-soft">
                  <th scope="row" className="px-2 py-1 text-left font-normal">
                    {machines[machine.machine_id] ?? machine.machine_id}
                  </th>
                  <td className="px-2">{machine.state}</td>
                  <td className="px-2 text-right font-mono">
                    {machine.progress === null ? '' : percent(machine.progress)}
                  </td>
                  <td className="px-2 font-mono">{shortTime(machine.at)}</td>
                  <td className={`px-2 ${machine.is_up ? '' : 'text-warn'}`}>
                    {machine.is_up ? 'there' : 'lost'}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Leaving>
      )}
      {dropped > 0 && (
        <p className="px-3 py-2 text-xs text-ink-2">
          dropped: {link.dropped.map((one) => `${one.reason} ${one.count}`).join(' · ')}
        </p>
      )}
    </section>
  );
}
