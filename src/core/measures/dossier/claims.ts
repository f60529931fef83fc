import type { Row } from '../../model/study';

/** What is known of a machine that a claim can be held against. */
export interface ClaimFigures {
  /** Sound level while printing at 1 m, dB(A). */
  noise_db: number | null;
  /** Mean absolute deviation of its truest contender, mm, with the ends of what is known. */
  accuracy_mm: { estimate: number; low: number | null; high: number | null } | null;
  /** What was paid. */
  price: number | null;
  /** Least of its build sizes, mm. */
  build_mm: number | null;
  /** The highest speed that its files ask for, mm/s; null where none was read. */
  asked_mm_s: number | null;
  /** The highest speed that its limits let it reach in these files, mm/s. */
  reached_mm_s: number | null;
  /** Share of the printing time at 95 % of the claimed speed or more. */
  reached_share: number | null;
}

/** A finding that follows from figures; a person's word stands before it. */
export interface ProposedFinding {
  finding: NonNullable<Row<'claims'>['finding']>;
  /** By what, as a person reads it. */
  evidence: string;
}

/** What is within 2 % of a claim keeps it; of a speed within 5 %, as everywhere here. */
const SLACK = 0.02;
const SPEED_SLACK = 0.05;

const figure = (value: number): string => String(Number(value.toPrecision(3)));

/** What would prove a claim, in words; null where nothing that is known here would. */
export function provenBy({
  quantity,
  unit,
}: Pick<Row<'claims'>, 'quantity' | 'unit'>): string | null {
  switch (subjectOf(quantity, unit)) {
    case 'speed':
      return 'the speeds that its files ask for, and that it reaches';
    case 'noise':
      return 'the sound level at 1 m while it prints';
    case 'accuracy':
      return 'the mean deviation of its parts';
    case 'price':
      return 'what was paid';
    case 'build':
      return 'its build sizes';
    case null:
      return null;
  }
}

type Subject = 'speed' | 'noise' | 'accuracy' | 'price' | 'build';

function subjectOf(quantity: string | null, unit: string | null): Subject | null {
  const what = (quantity ?? '').toLowerCase();
  if (/accel/.test(what)) return null;
  if (/speed/.test(what) || unit === 'mm/s') return 'speed';
  if (/noise|sound|loud|quiet/.test(what) || /^db/i.test(unit ?? '')) return 'noise';
  if (/accura|precision|deviation|tolerance/.test(what)) return 'accuracy';
  if (/price|cost/.test(what)) return 'price';
  return /build|volume|size/.test(what) && unit === 'mm' ? 'build' : null;
}

/**
 * What a claim's figure comes to; null where no figure here says it.
 *
 * @param known what was found of the machine
 */
export function proposeFinding(
  { quantity, unit, value }: Pick<Row<'claims'>, 'quantity' | 'unit' | 'value'>,
  known: ClaimFigures,
): ProposedFinding | null {
  if (value === null) return null;
  switch (subjectOf(quantity, unit)) {
    case 'speed':
      return ofSpeed(value, known);
    case 'noise':
      return known.noise_db === null
        ? null
        : atMost(known.noise_db, value, `${known.noise_db.toFixed(1)} dB(A) at 1 m, printing`);
    case 'accuracy':
      return ofAccuracy(value, known.accuracy_mm);
    case 'price':
      return known.price === null
        ? null
        : atMost(known.price, value, `${figure(known.price)} paid`);
    case 'build':
      return known.build_mm === null
        ? null
        : {
            finding: known.build_mm >= value * (1 - SLACK) ? 'confirmed' : 'refuted',
            evidence: `least build size ${figure(known.build_mm)} mm`,
          };
    case null:
      return null;
  }
}

const atMost = (found: number, claimed: number, evidence: string): ProposedFinding => ({
  finding: found <= claimed * (1 + SLACK) ? 'confirmed' : 'refuted',
  evidence,
});

function ofSpeed(
  claimed: number,
  { asked_mm_s, reached_mm_s, reached_share }: ClaimFigures,
): ProposedFinding | null {
  if (asked_mm_s === null) return null;
  if (asked_mm_s < claimed * (1 - SPEED_SLACK)) {
    return {
      finding: 'refuted',
      evidence: `no file asks for more than ${figure(asked_mm_s)} mm/s`,
    };
  }
  if (reached_mm_s === null) return null;
  if (reached_mm_s < claimed * (1 - SPEED_SLACK)) {
    return { finding: 'refuted', evidence: `asked for, reached ${figure(reached_mm_s)} mm/s` };
  }
  const share = reached_share ?? 0;
  const percent = share < 0.01 ? 'under 1 %' : `${Math.round(100 * share)} %`;
  return {
    finding: share >= 0.5 ? 'confirmed' : 'partly',
    evidence: `reached for ${percent} of the time`,
  };
}

function ofAccuracy(claimed: number, found: ClaimFigures['accuracy_mm']): ProposedFinding | null {
  if (found === null) return null;
  const evidence = `mean deviation ${found.estimate.toFixed(3)} mm`;
  const [low, high] = [found.low ?? found.estimate, found.high ?? found.estimate];
  if (high <= claimed) return { finding: 'confirmed', evidence };
  if (low > claimed) return { finding: 'refuted', evidence };
  return { finding: 'partly', evidence: `${evidence}; the claim lies within what is known` };
}
