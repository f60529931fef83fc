import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  follow,
  machineMessageSchema,
  readTopic,
  whyDropped,
  type Heard,
  type MachineMessage,
} from './index';

const at = (minute: number): string => new Date(Date.UTC(2026, 2, 2, 8, minute)).toISOString();

/** The clock of who listens, a day later. */
const NOW = Date.UTC(2026, 2, 3);

const message = (
  sequence: number,
  minute: number,
  state: MachineMessage['state'],
  more: Partial<MachineMessage> = {},
): MachineMessage => ({ session: 's', sequence, at: at(minute), state, job: 'j', ...more });

/** Follows messages one after another; the steps of all of them, each with its kind. */
function followAll(messages: readonly MachineMessage[]): string[] {
  let heard: Heard | null = null;
  let hasPrint = false;
  const said: string[] = [];
  for (const one of messages) {
    if (whyDropped(heard, one, NOW)) continue;
    const result = follow(heard, one, hasPrint);
    heard = result.heard;
    for (const step of result.steps) {
      if (step.kind === 'start') hasPrint = true;
      if (step.kind === 'end') hasPrint = false;
      if (step.kind === 'event' && step.event === 'stalled') heard.isStalled = true;
      const what =
        step.kind === 'event' ? step.event : step.kind === 'end' ? step.outcome : 'start';
      said.push(`${what} ${new Date(step.at).getUTCMinutes()}`);
    }
  }
  return said;
}

describe('what follows from what a machine says', () => {
  const run = [
    message(1, 0, 'idle'),
    message(2, 1, 'heating', { progress: 0 }),
    message(3, 4, 'printing', { progress: 0 }),
    message(4, 10, 'printing', { progress: 0.3 }),
    message(5, 11, 'paused'),
    message(6, 15, 'printing', { progress: 0.3 }),
    message(7, 20, 'printing', { progress: 0.6 }),
    message(8, 30, 'done', { progress: 1 }),
    message(9, 31, 'idle'),
  ];

  it('start, heat, pause and end of a print', () => {
    expect(followAll(run)).toEqual([
      'start 1',
      'heated 4',
      'paused 11',
      'resumed 15',
      'success 30',
    ]);
  });

  it('whatever is repeated changes nothing', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(8), { maxLength: 20 }), (again) => {
        const repeated = run.flatMap((one, position) => [
          one,
          ...again.filter((index) => index <= position).map((index) => run[index] ?? one),
        ]);
        expect(followAll(repeated)).toEqual(followAll(run));
      }),
    );
  });

  it('a stand-still is suspected from when the progress stopped, until it moves', () => {
    const still = [
      message(1, 0, 'printing', { progress: 0.1 }),
      message(2, 5, 'printing', { progress: 0.2 }),
      message(3, 12, 'printing', { progress: 0.2 }),
      message(4, 15, 'printing', { progress: 0.2 }),
      message(5, 25, 'printing', { progress: 0.2 }),
      message(6, 30, 'printing', { progress: 0.25 }),
      message(7, 40, 'failed', { progress: 0.25, reason: 'clogged' }),
    ];
    expect(followAll(still)).toEqual(['start 0', 'stalled 5', 'moved 30', 'failed 40']);
  });

  it('a failure has its reason, or another; what is done has none', () => {
    const { heard } = follow(null, message(1, 0, 'printing', { progress: 0.4 }), false);
    const endOf = (one: MachineMessage) => follow(heard, one, true).steps.at(-1);
    expect(endOf(message(2, 5, 'failed', { reason: 'clogged' }))).toMatchObject({
      kind: 'end',
      outcome: 'failed',
      mode: 'clogged',
      progress: 0.4,
    });
    expect(endOf(message(2, 5, 'failed', { progress: 0.6 }))).toMatchObject({
      mode: 'other',
      progress: 0.6,
    });
    expect(endOf(message(2, 5, 'done', { progress: 0.99 }))).toMatchObject({
      outcome: 'success',
      mode: null,
      progress: 1,
    });
  });

  it('another session goes on with the print, unless it is older', () => {
    const heard = follow(null, message(7, 10, 'printing'), false).heard;
    const restarted = { ...message(1, 12, 'printing'), session: 't' };
    expect(whyDropped(heard, restarted, NOW)).toBeNull();
    expect(follow(heard, restarted, true).steps).toEqual([]);
    expect(whyDropped(heard, { ...restarted, at: at(3) }, NOW)).toBe('late');
    expect(whyDropped(heard, message(7, 10, 'printing'), NOW)).toBe('repeated');
    expect(whyDropped(heard, message(6, 11, 'printing'), NOW)).toBe('late');
    // A clock that has gone wrong makes nobody late for ever.
    const wrong = { ...restarted, at: '2099-01-01T00:00:00Z' };
    expect(whyDropped(heard, wrong, NOW)).toBe('ahead of time');
    expect(whyDropped({ ...heard, at: wrong.at }, restarted, NOW)).toBeNull();
  });

  it('a print that a person has ended is not opened again by the same job', () => {
    const heard = follow(null, message(1, 0, 'printing'), false).heard;
    const still = follow(heard, message(2, 5, 'paused'), false);
    expect(still.steps).toEqual([]);
    const next = follow(still.heard, message(3, 9, 'heating', { job: 'k' }), false);
    expect(next.steps.map((step) => step.kind)).toEqual(['start']);
    // The machine was idle in between: a job of the same name is another one.
    const idle = follow(heard, message(2, 5, 'idle'), false).heard;
    expect(follow(idle, message(3, 6, 'heating'), false).steps).toHaveLength(1);
  });

  it('an end without a print is no print', () => {
    expect(followAll([message(1, 0, 'done', { progress: 1 })])).toEqual([]);
  });
});

describe('what is read at all', () => {
  it('no absurd progress, time or state', () => {
    const read = (more: object) =>
      machineMessageSchema.safeParse({ ...message(1, 0, 'printing'), ...more }).success;
    expect(read({})).toBe(true);
    expect(read({ progress: 1.2 })).toBe(false);
    expect(read({ progress: '0.5' })).toBe(false);
    expect(read({ at: '2026-03-02 08:00' })).toBe(false);
    expect(read({ state: 'flying' })).toBe(false);
    expect(read({ sequence: -1 })).toBe(false);
  });

  it('no word that could not be kept: half a character, a control character, one that is too long', () => {
    const read = (more: object) =>
      machineMessageSchema.safeParse({ ...message(1, 0, 'printing'), ...more }).success;
    for (const field of ['session', 'job', 'file']) {
      expect(read({ [field]: 'clip 🖨 ä' })).toBe(true);
      for (const wrong of ['a\ud800', '\udc00b', 'a\u0000b', 'a\u001bb', '', 'x'.repeat(256)]) {
        expect(read({ [field]: wrong })).toBe(false);
      }
    }
  });

  it('only topics of ours', () => {
    expect(readTopic('vergleich/1/machine/m-1/state')).toEqual({ kind: 'state', machine: 'm-1' });
    expect(readTopic('vergleich/1/meter/m-1')).toEqual({ kind: 'meter', machine: 'm-1' });
    expect(readTopic('vergleich/1/machine/m-1/link')?.kind).toBe('presence');
    for (const other of [
      'a',
      'vergleich/2/meter/m',
      'vergleich/1/machine/m',
      'vergleich/1/meter/',
    ]) {
      expect(readTopic(other)).toBeNull();
    }
  });
});
