import { chosenOf } from '../../kit/chosen';
import { useState } from 'react';
import type { OrderOptions } from '../../../core/answers/plan';
import { type ContenderMark, keysOf } from '../../../core/model/study';
import type { OrderedPrint } from '../../../contract/plan';
import { readAgain } from '../../kit/leave';
import { callApi, failureText } from '../../kit/request';
import { useSerialQueue } from '../../kit/use-serial-queue';
import { useLatest } from '../../kit/use-latest';
import { counted } from '../../lib/format';
import { Badge } from '../../marks/Badge';

interface RunOrderProps {
  studyId: string;
  order: readonly OrderedPrint[];
  marks: readonly ContenderMark[];
  artefacts: readonly { id: string; name: string }[];
  materials: readonly { id: string; name: string }[];
  options: OrderOptions;
}

const BLOCKS = {
  repeat: 'one repeat of everything a block',
  lot: 'one lot of material a block',
  day: 'one day a block',
};

/** The order in which to print, drawn by a stated seed so that drift favours nobody. */
export function RunOrder(props: RunOrderProps) {
  const { studyId, order, marks, artefacts, materials } = props;
  const [message, setMessage] = useState<string | null>(null);
  const { shown: options, read, change } = useLatest(props.options);
  const inTurn = useSerialQueue();
  const keep = (more: Partial<RunOrderProps['options']>) => {
    change((known) => ({ ...known, ...more }));
    return inTurn(async () => {
      try {
        setMessage(null);
        const path = `/studies/${studyId}`;
        const { row_version } = await callApi<{ row_version: number }>('GET', path);
        await callApi('PATCH', path, { version: row_version, change: { plan: read() } });
        void readAgain();
      } catch (error) {
        setMessage(failureText(error, 'The run order was not saved.'));
      }
    });
  };
  const nameOf = (list: readonly { id: string; name: string }[], id: string) =>
    list.find((one) => one.id === id)?.name ?? id;
  const blocks = [...new Set(order.map((print) => print.block))];
  const due = order.filter((print) => print.state === 'due').length;
  const next = order.find((print) => print.state === 'due');
  return (
    <section className="min-w-0 sheet" aria-labelledby="run-order">
      <header className="flex flex-wrap items-end justify-between gap-2 border-b border-line px-3 py-2">
        <div>
          <h2 id="run-order" className="font-semibold">
            Run order
          </h2>
          <p className="text-xs text-ink-2">
            shuffled within blocks; {counted(due, 'print')} still to print of {order.length}
          </p>
        </div>
        <OrderOptions options={options} keep={keep} studyId={studyId} />
      </header>
      {message && (
        <p role="alert" className="px-3 py-1 text-warn">
          {message}
        </p>
      )}
      {order.length === 0 && <p className="p-3 text-ink-2">Nothing is planned yet.</p>}
      <div
        className="max-h-[360px] overflow-auto px-3 py-2"
        tabIndex={0}
        role="region"
        aria-label="Run order"
      >
        {blocks.map((block) => (
          <OrderBlock
            key={block}
            block={block}
            order={order}
            marks={marks}
            next={next}
            nameOf={nameOf}
            materials={materials}
            artefacts={artefacts}
          />
        ))}
      </div>
    </section>
  );
}

interface OrderOptionsProps {
  options: OrderOptions;
  keep: (more: Partial<RunOrderProps['options']>) => Promise<void>;
  studyId: string;
}

/** How the order is drawn. */
function OrderOptions({ options, keep, studyId }: OrderOptionsProps) {
  return (
    <div className="flex flex-wrap items-end gap-2 text-xs text-ink-2">
      <label>
        block by
        <select
          className="field"
          value={options.block_by}
          onChange={(event) => void keep({ block_by: chosenOf(event, keysOf(BLOCKS)) })}
        >
          {Object.entries(BLOCKS).map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
      </label>
      {options.block_by === 'day' && (
        <label>
          prints a day
          <Whole
            value={options.prints_per_day}
            onKeep={(prints_per_day) => void keep({ prints_per_day })}
          />
        </label>
      )}
      <label>
        readings of a dimension
        <Whole
          value={options.readings ?? 1}
          onKeep={(readings) => void keep({ readings: Math.min(9, readings) })}
        />
      </label>
      <label>
        seed
        <Whole value={options.seed} onKeep={(seed) => void keep({ seed })} />
      </label>
      <a className="action" href={`/studies/${studyId}/sheets`}>
        Run sheet and stickers
      </a>
    </div>
  );
}

interface OrderBlockProps {
  block: number;
  order: RunOrderProps['order'];
  marks: RunOrderProps['marks'];
  next: OrderedPrint | undefined;
  nameOf: (list: readonly { id: string; name: string }[], id: string) => string;
  materials: RunOrderProps['materials'];
  artefacts: RunOrderProps['artefacts'];
}

/** The prints of one block, in their order. */
function OrderBlock({ block, order, marks, next, nameOf, materials, artefacts }: OrderBlockProps) {
  return (
    <div className="mb-2">
      <p className="text-2xs text-ink-2">block {block}</p>
      <ol className="flex flex-wrap gap-1">
        {order
          .filter((print) => print.block === block)
          .map((print) => {
            const mark = marks.find((one) => one.contender_id === print.contender_id);
            return (
              <li
                key={`${print.contender_id} ${print.artefact_id} ${print.repeat}`}
                className={`inline-flex items-center gap-1 rounded-sm border px-1 py-0.5 text-2xs ${
                  print === next
                    ? 'border-plum bg-plum-soft'
                    : print.state === 'due'
                      ? 'border-dashed border-line'
                      : 'border-line text-ink-2'
                }`}
                data-hint={`${nameOf(materials, print.material_id)}: ${print.state}`}
              >
                {mark && <Badge mark={mark} />}
                {nameOf(artefacts, print.artefact_id)} {print.repeat}
                <span aria-hidden="true">
                  {print.state === 'done' ? '✓' : print.state === 'open' ? '…' : ''}
                </span>
                <span className="sr-only">{print.state}</span>
              </li>
            );
          })}
      </ol>
    </div>
  );
}

function Whole({ value, onKeep }: { value: number; onKeep: (value: number) => void }) {
  const [text, setText] = useState(String(value));
  const isValid = /^\d{1,9}$/.test(text);
  const commit = () => {
    if (isValid && Number(text) !== value) onKeep(Number(text));
  };
  return (
    <input
      className="block field w-24 font-mono"
      inputMode="numeric"
      value={text}
      aria-invalid={!isValid}
      onChange={(event) => setText(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') commit();
      }}
    />
  );
}
