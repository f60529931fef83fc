interface PickedSpecimen {
  specimen_id: string;
  code: string | null;
  artefact: string;
}

interface SpecimenPickerProps {
  specimens: readonly PickedSpecimen[];
  value: string;
  onChoose: (specimenId: string) => void;
  /** Whether nothing may be chosen yet. */
  isOpen?: boolean;
  className?: string;
}

/** One specimen of a study, by its code and artefact. */
export function SpecimenPicker(props: SpecimenPickerProps) {
  const { specimens, value, onChoose, isOpen = false, className = 'field w-auto' } = props;
  return (
    <select
      className={className}
      aria-label="Specimen"
      value={value}
      onChange={(event) => onChoose(event.target.value)}
    >
      {isOpen && (
        <option value="" disabled>
          not stated
        </option>
      )}
      {specimens.map((one) => (
        <option key={one.specimen_id} value={one.specimen_id}>
          {one.code ?? one.specimen_id} · {one.artefact}
        </option>
      ))}
    </select>
  );
}
