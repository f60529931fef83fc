import type { MachineMessage, MeterMessage } from '../src/core/model/link';
import type { IncidentMode } from '../src/core/model/study';

/** One job that a simulated machine does. */
export interface SimulatedJob {
  /** The sliced file's name; none: the next that is planned. */
  file?: string;
  /** Virtual seconds. */
  heat_s: number;
  print_s: number;
  /** Seconds into printing at which it is paused, and for how long. */
  pause?: { after_s: number; for_s: number };
  /** Stands still without saying so: its progress does not move. */
  stall?: { after_s: number; for_s: number };
  /** Loses its connection; what it would have said then is not sent. */
  silence?: { after_s: number; for_s: number };
  fails?: { after_s: number; reason: IncidentMode };
  /** Idle time after it. */
  rest_s: number;
}

/** Something that a simulated machine does at a time on its virtual clock. */
export type Doing =
  | { at_s: number; kind: 'say'; message: Omit<MachineMessage, 'at'> }
  | { at_s: number; kind: 'meter'; message: Omit<MeterMessage, 'at'> }
  | { at_s: number; kind: 'lose' }
  | { at_s: number; kind: 'return' };

/** Seconds between two words of a machine that prints. */
const WORD_EVERY_S = 60;
/** The meter speaks at every so many words of the machine, and whenever its state is another. */
const METER_EVERY = 5;
const WATTS = { heating: 220, printing: 95, paused: 60, idle: 8 };

type State = MachineMessage['state'];

/** All that a machine does, job after job, in the order of its virtual clock. */
export function timeline(session: string, jobs: readonly SimulatedJob[], from_s = 0): Doing[] {
  const doings: Doing[] = [];
  let clock = from_s;
  let sequence = 0;
  let energy_wh = 0;
  let isLost = false;
  const pass = (seconds: number, watts: number) => {
    clock += seconds;
    energy_wh += (seconds * watts) / 3600;
  };
  const say = (state: State, more: Partial<MachineMessage> = {}) => {
    sequence += 1;
    if (isLost) return;
    doings.push({ at_s: clock, kind: 'say', message: { session, sequence, state, ...more } });
    if (sequence % METER_EVERY !== 0 && state === 'printing') return;
    sequence += 1;
    const message = {
      session: `${session}-meter`,
      sequence,
      energy_wh: Math.round(energy_wh * 10) / 10,
    };
    doings.push({ at_s: clock, kind: 'meter', message });
  };
  say('idle');
  jobs.forEach((job, number) => {
    const about = {
      job: `${session}-${number + 1}`,
      ...(job.file !== undefined && { file: job.file }),
    };
    say('heating', { ...about, progress: 0 });
    pass(job.heat_s, WATTS.heating);
    let done = 0;
    const share = () => Math.round((10_000 * done) / job.print_s) / 10_000;
    say('printing', { ...about, progress: share() });
    const ends = job.fails?.after_s ?? job.print_s;
    let silentUntil = -1;
    while (done < ends) {
      const marks = [job.pause, job.stall, job.silence].flatMap((one) =>
        one && one.after_s > done ? [one.after_s - done] : [],
      );
      const step = Math.min(WORD_EVERY_S, ends - done, ...marks);
      pass(step, WATTS.printing);
      done += step;
      if (isLost && clock >= silentUntil) {
        isLost = false;
        doings.push({ at_s: clock, kind: 'return' });
      }
      if (done >= ends) break;
      say('printing', { ...about, progress: share() });
      if (job.silence?.after_s === done) {
        doings.push({ at_s: clock, kind: 'lose' });
        isLost = true;
        silentUntil = clock + job.silence.for_s;
      }
      if (job.pause?.after_s === done) {
        say('paused', { ...about, progress: share() });
        pass(job.pause.for_s, WATTS.paused);
        say('printing', { ...about, progress: share() });
      }
      if (job.stall?.after_s === done) {
        for (let still = 0; still < job.stall.for_s; still += WORD_EVERY_S) {
          pass(Math.min(WORD_EVERY_S, job.stall.for_s - still), WATTS.paused);
          say('printing', { ...about, progress: share() });
        }
      }
    }
    if (isLost) {
      isLost = false;
      doings.push({ at_s: clock, kind: 'return' });
    }
    if (job.fails) say('failed', { ...about, progress: share(), reason: job.fails.reason });
    else say('done', { ...about, progress: 1 });
    pass(job.rest_s, WATTS.idle);
    say('idle');
  });
  return doings;
}
