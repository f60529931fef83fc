import { useState, type SetStateAction, type Dispatch } from 'react';
import { nameOfThing } from '../../../core/answers/workshop/kinds';
import type { LineUpPage } from '../../../contract/line-up';
import type { Stored } from '../../../contract/rows';
import { Drawer } from '../../kit/Drawer';
import type { FieldSpec } from '../../records/fields';
import { RecordForm } from '../../records/RecordForm';
import { AddBy } from './AddBy';

interface SuppliesSheetProps {
  studyId: string;
  materials: LineUpPage['rows']['materials'];
  instruments: LineUpPage['rows']['instruments'];
  offered: Pick<LineUpPage['offered'], 'material' | 'instrument'>;
  fields: Record<'material' | 'instrument', readonly FieldSpec[]>;
}

type Opened = { kind: 'material' | 'instrument'; id: string };

/** What is printed with and measured with; each opens to be written down. */
export function SuppliesSheet(props: SuppliesSheetProps) {
  const { studyId, materials, instruments, offered, fields } = props;
  const [opened, setOpened] = useState<Opened | null>(null);
  const row =
    opened?.kind === 'material'
      ? materials.find((one) => one.material_id === opened.id)
      : instruments.find((one) => one.instrument_id === opened?.id);
  const table = opened?.kind === 'material' ? 'materials' : 'instruments';
  return (
    <section className="min-w-0 sheet p-3" aria-labelledby="supplies">
      <h2 id="supplies" className="mb-2 font-semibold">
        Material and instruments
      </h2>
      <ul>
        {materials.map((one) => (
          <li key={one.material_id}>
            <button
              type="button"
              className="min-h-[24px] border-0 bg-transparent p-0 text-left hover:underline"
              onClick={() => setOpened({ kind: 'material', id: one.material_id })}
            >
              {nameOfThing('material', { ...one })}{' '}
              <span className="text-2xs text-ink-2">
                {one.price_per_kg === null
                  ? 'price not known'
                  : `${one.price_per_kg} ${one.currency ?? ''} a kg`}
              </span>
            </button>
          </li>
        ))}
        {instruments.map((one) => (
          <InstrumentLine key={one.instrument_id} one={one} setOpened={setOpened} />
        ))}
      </ul>
      <div className="mt-2 grid gap-1.5">
        <AddBy
          studyId={studyId}
          kind="material"
          placeholder="+ a material: of the workshop, or its type"
          offered={offered.material}
          className="w-full"
        />
        <AddBy
          studyId={studyId}
          kind="instrument"
          placeholder="+ an instrument: of the workshop, or its name"
          offered={offered.instrument}
          className="w-full"
        />
        <p className="text-xs">
          <a href={`/studies/${studyId}/materials`}>Lots and spools</a>
        </p>
      </div>
      {opened && row && (
        <Drawer
          key={`${opened.kind} ${opened.id}`}
          label={opened.kind === 'material' ? 'Material' : 'Instrument'}
          title={nameOfThing(opened.kind, { ...row })}
          onClose={() => setOpened(null)}
        >
          <div className="overflow-auto p-4">
            <RecordForm
              path={`/studies/${studyId}/rows/${table}/${opened.id}`}
              fields={fields[opened.kind]}
              values={{ ...row }}
              version={row.row_version}
              label={opened.kind === 'material' ? 'Material' : 'Instrument'}
            />
            {opened.kind === 'instrument' && (
              <p className="mt-3 text-xs">
                <a href={`/studies/${studyId}/instruments/${opened.id}`}>
                  Its zero and its gauge studies
                </a>
              </p>
            )}
          </div>
        </Drawer>
      )}
    </section>
  );
}

interface InstrumentLineProps {
  one: Stored<'instruments'>;
  setOpened: Dispatch<SetStateAction<Opened | null>>;
}

/** One instrument. */
function InstrumentLine({ one, setOpened }: InstrumentLineProps) {
  return (
    <li>
      <button
        type="button"
        className="min-h-[24px] border-0 bg-transparent p-0 text-left hover:underline"
        onClick={() => setOpened({ kind: 'instrument', id: one.instrument_id })}
      >
        {one.name}{' '}
        <span className="text-2xs text-ink-2">
          {[
            one.resolution_mm !== null && `${one.resolution_mm} mm`,
            one.expanded_uncertainty_mm !== null && `U ${one.expanded_uncertainty_mm} mm`,
            one.certificate !== null && `certificate ${one.certificate}`,
          ]
            .filter(Boolean)
            .join(' · ') || 'nothing known of it'}
        </span>
      </button>
    </li>
  );
}
