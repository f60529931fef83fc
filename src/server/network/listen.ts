import { codeOf } from '../../core/model/faults';
import { once } from 'node:events';
import type { Server } from 'node:net';

/** The port that the environment asks for; null where it leaves the choice. @throws Error in words */
export function askedPort(name: 'PORT' | 'MQTT_PORT' | 'MQTTS_PORT'): number | null {
  const text = process.env[name];
  if (text === undefined || text === '') return null;
  const port = Number(text);
  if (/^\d{1,5}$/.test(text) && port <= 65535) return port;
  throw new Error(`${name} is ${text}: it must be a number from 0 to 65535, or unset.`);
}

/** Listens on the first of some ports that is free; returns it, null where all are taken. */
export async function listenOnFirst(
  server: Server,
  host: string,
  ports: Iterable<number>,
): Promise<number | null> {
  for (const port of ports) {
    try {
      server.listen(port, host);
      await once(server, 'listening');
      const address = server.address();
      return typeof address === 'object' && address ? address.port : port;
    } catch (error) {
      if (codeOf(error) !== 'EADDRINUSE') throw error;
    }
  }
  return null;
}
