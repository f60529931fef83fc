interface VernierSliderProps {
  label: string;
  value: number;
  max: number;
  onChange: (value: number) => void;
}

const TICKS = 21;

/** A weight set on a scale of ticks: by hand, or by the arrow keys. */
export function VernierSlider({ label, value, max, onChange }: VernierSliderProps) {
  return (
    <span className="relative block w-full">
      <svg className="absolute inset-x-[5px] bottom-0 h-2 w-[calc(100%-10px)]" aria-hidden="true">
        {Array.from({ length: TICKS }, (_, at) => (
          <line
            key={at}
            x1={`${(100 * at) / (TICKS - 1)}%`}
            x2={`${(100 * at) / (TICKS - 1)}%`}
            y1={0}
            y2={at % 5 === 0 ? 8 : 4}
            stroke="var(--line)"
          />
        ))}
      </svg>
      <input
        type="range"
        className="vernier"
        aria-label={label}
        min={0}
        max={max}
        step={1}
        value={value}
        onChange={(event) => onChange(event.target.valueAsNumber)}
      />
    </span>
  );
}
