import { createServer, type Server } from 'node:net';
import { once } from 'node:events';
import { Aedes } from 'aedes';
import mqtt from 'mqtt';
import {
  LARGEST_MESSAGE,
  machineMessageSchema,
  meterMessageSchema,
  readTopic,
  TOPICS,
  type Topic,
} from '../../core/link';
import { countDropped, isDatabaseAway, setLinkUp, studyOfMachine } from '../../data';
import type { App } from '../app';
import { applyMachine, applyMeter } from './apply';
import type { Link } from './link';

const DEFAULT_PORT = 4683;
/** So often a message is tried that the database refuses, while it is there. */
const MOST_TRIES = 3;
const LONGEST_PAUSE_MS = 10_000;

/** Opens the bench link: the broker at `MQTT_URL`, else one of its own on the loopback. */
export async function openLink(app: App): Promise<Link> {
  const listener = new Listener(app);
  const outside = process.env.MQTT_URL;
  if (outside) return listenOutside(app, listener, outside);
  return openBroker(listener, Number(process.env.MQTT_PORT ?? DEFAULT_PORT));
}

/** Listens at somebody else's broker; a message is acknowledged when it has been followed. */
function listenOutside(app: App, listener: Listener, address: string): Link {
  const client = mqtt.connect(address, {
    reconnectPeriod: 2000,
    clean: false,
    clientId: `vergleich-${app.edition}`,
  });
  client.handleMessage = (packet, done) => {
    listener.take(packet.topic, Buffer.from(packet.payload)).then(
      () => done(),
      (error: unknown) => done(error as Error),
    );
  };
  client.on('connect', () => client.subscribe(TOPICS.everything, { qos: 1 }));
  // Without a broker the bench goes on by hand; the client tries again by itself.
  client.on('error', (error) => app.log.warn(error, 'bench link'));
  return {
    address,
    stop: async () => {
      await client.endAsync(true);
      await listener.drained();
    },
  };
}

/** Opens a broker of our own; what a machine says is acknowledged when it has been followed. */
async function openBroker(listener: Listener, port: number): Promise<Link> {
  const aedes = await Aedes.createBroker();
  aedes.authorizePublish = (_, packet, done) => {
    listener.take(packet.topic, Buffer.from(packet.payload)).then(
      () => done(null),
      (error: unknown) => done(error as Error),
    );
  };
  const server: Server = createServer(aedes.handle);
  for (const candidate of port === 0 ? [0] : [port, 0]) {
    try {
      server.listen(candidate, '127.0.0.1');
      await once(server, 'listening');
      break;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw error;
    }
  }
  const at = server.address();
  return {
    address: `mqtt://127.0.0.1:${typeof at === 'object' && at ? at.port : port}`,
    stop: async () => {
      await new Promise<void>((resolve) => {
        aedes.close(() => server.close(() => resolve()));
      });
      await listener.drained();
    },
  };
}

/** Follows messages one after another, machine by machine; what is wrong is dropped and counted. */
class Listener {
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
          await this.#drop(machine, 'could not be kept').catch(() => undefined);
          return;
        }
        const pause = Math.min(LONGEST_PAUSE_MS, 200 * 2 ** attempt);
        await new Promise((resolve) => setTimeout(resolve, pause));
      }
    }
  }

  async #drop(machine: string, reason: string): Promise<void> {
    const studyId = await studyOfMachine(this.#app.db, machine);
    if (studyId !== null) await countDropped(this.#app.db, studyId, reason, 1);
  }

  async #follow({ kind, machine }: NonNullable<Topic>, payload: Buffer): Promise<void> {
    const { db } = this.#app;
    const studyId = await studyOfMachine(db, machine);
    if (studyId === null) return;
    const drop = (reason: string) => countDropped(db, studyId, reason, 1);
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
    if (result !== 'followed') await drop(result);
  }
}

function readJson(payload: Buffer): unknown {
  try {
    return JSON.parse(payload.toString('utf8')) as unknown;
  } catch {
    return null;
  }
}
