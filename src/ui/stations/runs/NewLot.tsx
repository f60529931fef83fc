import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import type { FieldSpec } from '../../records/fields';
import { NewRecord } from '../../records/NewRecord';

interface NewLotProps {
  studyId: string;
  fields: readonly FieldSpec[];
  onAdded: (lot: { id: string; name: string }) => void;
}

/** A new lot of filament, made where a print asks for it. */
export function NewLot({ studyId, fields, onAdded }: NewLotProps) {
  const [isOpen, setOpen] = useState(false);
  if (!isOpen) {
    return (
      <button type="button" className="mb-3 action" onClick={() => setOpen(true)}>
        Add lot
      </button>
    );
  }
  return (
    <section className="mb-3 border border-line p-2" aria-label="New lot">
      <NewRecord
        path={`/studies/${studyId}/rows/materials`}
        fields={fields}
        initial={{ material_id: `lot-${uuid().slice(-12)}` }}
        label="New lot"
        action="Add lot"
        onAdded={(row) => {
          const words = [row.type, row.maker, row.colour, row.lot && `lot ${row.lot}`];
          onAdded({ id: String(row.material_id), name: words.filter(Boolean).join(', ') });
          setOpen(false);
        }}
        onCancel={() => setOpen(false)}
      />
    </section>
  );
}
