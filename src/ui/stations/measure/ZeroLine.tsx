import type { BenchInstrument, BenchZero } from '../../../contract/measure';
import { signed } from '../../lib/format';
import { useNow } from '../../lib/use-now';
import { READINGS_PER_ZERO, zeroState } from './zero-state';

interface ZeroLineProps {
  studyId: string;
  instrument: BenchInstrument;
  zeros: readonly BenchZero[];
  /** Readings since the last look. */
  sinceZero: number;
  onCheck: () => void;
}

/** When the zero was looked at, how it drifts, and whether it is time to look again. */
export function ZeroLine({ studyId, instrument, zeros, sinceZero, onCheck }: ZeroLineProps) {
  const now = useNow();
  if (now === null) return <p className="mb-2 min-h-6" />;
  const { last, drift_mm, off_mm } = zeroState(instrument, zeros, now);
  const isDue = !last || sinceZero >= READINGS_PER_ZERO;
  const half = (instrument.resolution_mm ?? 0.01) / 2;
  const isOff = off_mm !== null && Math.abs(off_mm) > half;
  return (
    <p
      className={
        'mb-2 flex min-h-6 flex-wrap items-center gap-x-2 px-1 text-xs ' +
        `${isDue || isOff ? 'text-warn' : 'text-ink-2'}`
      }
      data-mark="zero"
    >
      {last ? (
        <>
          zero {signed(last.value_mm, 2)} checked {last.at.slice(11, 16)}
          {drift_mm !== null && `, drift ${signed(drift_mm, 2)} since the first look`}
          {sinceZero > 0 && `, ${sinceZero} readings ago`}
          {isOff && (
            <span>
              · {signed(off_mm, 2)} off the zero that readings are taken less:{' '}
              <a href={`/studies/${studyId}/instruments/${instrument.id}`}>look at it</a>
            </span>
          )}
        </>
      ) : (
        'The zero of this instrument was not checked in this session.'
      )}
      <button type="button" className="text-plum underline" onClick={onCheck}>
        Check zero
      </button>
      <kbd className="key hidden md:inline">Z</kbd>
    </p>
  );
}
