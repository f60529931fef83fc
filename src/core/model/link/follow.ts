import { instant, type IncidentMode, type PrintEventKind } from '../study';
import type { MachineMessage } from './messages';

/** What was heard last of a machine. */
export interface Heard {
  session: string;
  sequence: number;
  at: string;
  state: string;
  progress: number | null;
  progress_at: string | null;
  /** The job that a print was opened for, as long as the machine is at it. */
  printed_job: string | null;
  /** Whether a stand-still is suspected now. */
  isStalled: boolean;
}

/** What follows from a message for the print that runs on the machine. */
export type Step =
  | { kind: 'start'; at: string }
  | { kind: 'event'; event: PrintEventKind; at: string }
  | {
      kind: 'end';
      at: string;
      outcome: 'success' | 'failed';
      progress: number;
      mode: IncidentMode | null;
    };

/** A message is late, repeated, or of a time that has not come: it is not followed. */
export type Dropped = 'late' | 'repeated' | 'ahead of time';

/** A sender's clock may be ahead of this one's by so much, ms. */
const CLOCKS_PART_MS = 36 * 60 * 60 * 1000;

/** A print whose progress has not moved for that long is suspected to stand still, s. */
const STANDS_STILL_S = 600;

/**
 * Whether a message comes after what was heard; where not, why it is dropped.
 *
 * @param now milliseconds since 1970: a time far ahead of it is a clock gone wrong, of the message
 *   and of what was heard before alike
 */
export function whyDropped(
  heard: Pick<Heard, 'session' | 'sequence' | 'at'> | null,
  message: Pick<MachineMessage, 'session' | 'sequence' | 'at'>,
  now: number,
): Dropped | null {
  const isAhead = (at: string) => instant(at) > now + CLOCKS_PART_MS;
  if (isAhead(message.at)) return 'ahead of time';
  if (!heard || isAhead(heard.at)) return null;
  if (heard.session === message.session) {
    if (message.sequence === heard.sequence) return 'repeated';
    return message.sequence < heard.sequence ? 'late' : null;
  }
  // Another session is a restart of the sender, unless it is older than what was heard.
  return instant(message.at) < instant(heard.at) ? 'late' : null;
}

const RUNS: readonly string[] = ['heating', 'printing', 'paused'];
/** Stands for the job of a machine that names none. */
const UNNAMED = 'unnamed';

/**
 * What a message means: which steps the print takes, and what is heard from now on.
 *
 * @param hasPrint whether a print of this job is open
 */
export function follow(
  heard: Heard | null,
  message: MachineMessage,
  hasPrint: boolean,
): { steps: Step[]; heard: Heard } {
  const { state, at } = message;
  const before = hasPrint ? (heard?.state ?? 'idle') : 'idle';
  const steps: Step[] = [];
  const say = (event: PrintEventKind) => steps.push({ kind: 'event', event, at });
  const runs = RUNS.includes(state);
  const job = message.job ?? UNNAMED;
  // A print that a person has ended is over, whatever the machine still says of its job.
  const isEnded = runs && !hasPrint && heard?.printed_job === job;
  if (runs && !hasPrint && !isEnded) steps.push({ kind: 'start', at });
  const progress = message.progress ?? (runs ? (heard?.progress ?? null) : null);
  const hasMoved = message.progress !== undefined && message.progress !== heard?.progress;
  let progress_at = hasMoved || !runs || !hasPrint ? at : (heard?.progress_at ?? at);
  let isStalled = hasPrint && heard?.isStalled === true;
  const isOn = !isEnded && (hasPrint || runs);
  if (isOn && state === 'printing') {
    if (before === 'heating') say('heated');
    // A print that is first heard of while it prints was hot by then; when, nobody knows.
    if (before === 'paused') {
      say('resumed');
      progress_at = at;
    }
    if (isStalled && hasMoved) {
      say('moved');
      isStalled = false;
    } else if (
      !isStalled &&
      before === 'printing' &&
      !hasMoved &&
      instant(at) - instant(progress_at) >= STANDS_STILL_S * 1000
    ) {
      steps.push({ kind: 'event', event: 'stalled', at: progress_at });
      isStalled = true;
    }
  } else if (isOn && state === 'paused' && before !== 'paused') {
    say('paused');
    isStalled = false;
  } else if (hasPrint && (state === 'done' || state === 'failed')) {
    steps.push({
      kind: 'end',
      at,
      outcome: state === 'done' ? 'success' : 'failed',
      progress: state === 'done' ? 1 : (message.progress ?? heard?.progress ?? 0),
      mode: state === 'failed' ? (message.reason ?? 'other') : null,
    });
    isStalled = false;
  }
  return {
    steps,
    heard: {
      session: message.session,
      sequence: message.sequence,
      at,
      state,
      progress,
      progress_at,
      printed_job: runs ? job : null,
      isStalled: isStalled && runs,
    },
  };
}
