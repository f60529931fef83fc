import { messageOf } from '../../core/model/faults';
import { readFileSync } from 'node:fs';
import mqtt from 'mqtt';
import { TOPICS } from '../../core/model/link';
import { databaseName, holdLock } from '../../data';
import type { App } from '../app';
import type { Link } from './link';
import type { Listener } from './listener';

/** What is kept of an address where it is shown: no user and no password. */
export function shownAddress(address: string): string {
  const url = new URL(address);
  url.username = '';
  url.password = '';
  return url.href.replace(/\/$/, '');
}

/** How somebody else's broker is spoken to, as the environment says. @throws Error in words where it makes no sense */
function optionsFrom(env: NodeJS.ProcessEnv): mqtt.IClientOptions {
  const { MQTT_USERNAME: username, MQTT_PASSWORD: password, MQTT_CA: ca } = env;
  const own = (path: string) => {
    try {
      return readFileSync(path);
    } catch {
      throw new Error(`MQTT_CA is ${path}: there is no certificate that can be read.`);
    }
  };
  return {
    ...(username && { username }),
    ...(password && { password }),
    ...(ca && { ca: own(ca) }),
  };
}

/**
 * Listens at somebody else's broker; a message is acknowledged when it has been followed. Of all processes on the
 * database one listens, and another when that one dies: what it has not acknowledged is told to that one.
 */
export async function listenOutside(app: App, listener: Listener, address: string): Promise<Link> {
  const url = URL.canParse(address) ? new URL(address) : null;
  if (!url || url.hostname === '' || !/^(?:mqtts?|wss?):$/.test(url.protocol)) {
    throw new Error('MQTT_URL must be like mqtts://broker.example:8883, or unset.');
  }
  const options = optionsFrom(process.env);
  const warn = (error: unknown) => app.log.warn(error, 'bench link');
  const name = await databaseName(app.db);
  let client: mqtt.MqttClient | null = null;
  let isOver = false;
  const listen = () => {
    if (isOver) return;
    client = mqtt.connect(address, {
      ...options,
      reconnectPeriod: 2000,
      // The broker keeps what is said while nobody listens, for whoever comes under this name.
      clean: false,
      clientId: `vergleich-${name}`,
    });
    client.handleMessage = (packet, done) => {
      listener.take(packet.topic, Buffer.from(packet.payload)).then(
        () => done(),
        (error: unknown) => done(new Error(messageOf(error), { cause: error })),
      );
    };
    const own = client;
    own.on('connect', () => own.subscribe(TOPICS.everything, { qos: 1 }));
    // Without a broker the bench goes on by hand; the client tries again by itself.
    own.on('error', warn);
  };
  const letGo = async () => {
    const own = client;
    client = null;
    await own?.endAsync(true);
  };
  const lock = holdLock(
    process.env.DATABASE_URL ?? '',
    'link',
    listen,
    () => void letGo().catch(warn),
  );
  return {
    address: shownAddress(address),
    outerAddress: null,
    isListening: () => client !== null,
    stop: async () => {
      isOver = true;
      await letGo();
      await listener.drained();
      // Only now: what was taken is kept, and the next one begins after it.
      await lock.end();
    },
  };
}
