import {
  LARGEST_MESSAGE,
  machineMessageSchema,
  meterMessageSchema,
  readTopic,
  type Topic,
} from '../../core/model/link';
import { countDropped, countStranger, isDatabaseAway, setLinkUp, studyOfMachine } from '../../data';
import type { App } from '../app';
import { countMessage } from '../watching/metrics';
import { applyMachine, applyMeter } from './apply';

/** So often a message is tried that the database refuses, while it is there. */
const MOST_TRIES = 3;
const LONGEST_PAUSE_MS = 10_000;

/** Follows messages one after another, machine by machine; what is wrong is dropped and counted. */
export class Listener {
  readonly #app: App;
  readonly #queues = new Map<string, Promise<void>>();
  #isEnding = false;

  constructor(app: App) {
    this.#app = app;
  }

  /** Follows a message; resolves when what follows from it is kept. */
  take(topic: string, payload: Buffer): Promise<void> {
    const about = readTopic(topic);
    if (!about) return Promise.resolve();
    const before = this.#queues.get(about.machine) ?? Promise.resolve();
    const done = before
      // What came before it may not have been kept: it is sent again, and this one is not held up.
      .catch(() => undefined)
      .then(() => this.#insist(about.machine, () => this.#follow(about, payload)))
      .finally(() => {
        if (this.#queues.get(about.machine) === done) this.#queues.delete(about.machine);
      });
    this.#queues.set(about.machine, done);
    return done;
  }

  /** Resolves when what has come in is followed, or given back to those who sent it. */
  async drained(): Promise<void> {
    this.#isEnding = true;
    await Promise.allSettled(this.#queues.values());
  }

  /**
   * Tries again as long as the database is away: until then the machine is not told that it was heard.
   * What the database will not have while it is there is counted among the dropped ones.
   */
  async #insist(machine: string, work: () => Promise<void>): Promise<void> {
    for (let attempt = 1; ; attempt += 1) {
      try {
        await work();
        return;
      } catch (error) {
        if (this.#isEnding) throw error;
        if (attempt >= MOST_TRIES && !isDatabaseAway(error)) {
          this.#app.log.error(error, 'bench link: a message was dropped');
          await this.#drop(machine, 'could not be saved').catch(() => undefined);
          return;
        }
        const pause = Math.min(LONGEST_PAUSE_MS, 200 * 2 ** attempt);
        await new Promise((resolve) => setTimeout(resolve, pause));
      }
    }
  }

  async #drop(machine: string, reason: string): Promise<void> {
    const studyId = await studyOfMachine(this.#app.db, machine);
    if (studyId !== null) await countDropped(this.#app.db, studyId, reason, machine);
  }

  async #follow({ kind, machine }: NonNullable<Topic>, payload: Buffer): Promise<void> {
    const { db } = this.#app;
    const studyId = await studyOfMachine(db, machine);
    if (studyId === null) return countStranger(db, machine);
    const drop = (reason: string) => {
      countMessage(this.#app, reason);
      return countDropped(db, studyId, reason, machine);
    };
    if (payload.length > LARGEST_MESSAGE) return drop('too long');
    if (kind === 'presence') {
      return setLinkUp(db, studyId, machine, payload.toString('utf8') === 'up');
    }
    const content = readJson(payload);
    const schema = kind === 'state' ? machineMessageSchema : meterMessageSchema;
    const read = schema.safeParse(content);
    if (!read.success) return drop('malformed');
    const result =
      kind === 'state'
        ? await applyMachine(db, studyId, machine, read.data as never)
        : await applyMeter(db, studyId, machine, read.data as never);
    if (result === 'followed') countMessage(this.#app, result);
    else await drop(result);
  }
}

function readJson(payload: Buffer): unknown {
  try {
    const read: unknown = JSON.parse(payload.toString('utf8'));
    return read;
  } catch {
    return null;
  }
}
