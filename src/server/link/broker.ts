import { messageOf } from '../../core/model/faults';
import { createServer, type Server } from 'node:net';
import { createServer as createSecureServer, type TLSSocket } from 'node:tls';
import { Aedes, type Client } from 'aedes';
import { readTopic } from '../../core/model/link';
import { findKey } from '../../data';
import { hashOf, isToken } from '../access/tokens';
import type { App } from '../app';
import { askedPort, listenOnFirst } from '../network/listen';
import type { Link } from './link';
import type { Listener } from './listener';

const DEFAULT_PORT = 4683;
const DEFAULT_SECURE_PORT = 8883;
/** A farm has some hundred machines; more connections than this are a mistake of somebody's. */
const MOST_CONNECTIONS = 2000;
/** What a machine has shown to come in. */
interface Known {
  machine: string;
  secret: string;
}

/** Opens a broker of our own; what a machine says is acknowledged when it has been followed. */
export async function openBroker(app: App, listener: Listener): Promise<Link> {
  const aedes = await Aedes.createBroker();
  const known = new WeakMap<Client, Known>();
  const isGood = async ({ machine, secret }: Known): Promise<boolean> => {
    const key = isToken(secret) ? await findKey(app.db, hashOf(secret)) : null;
    return key?.role === 'machine' && key.machine_id === machine;
  };
  /** Whether a client may speak of a machine. On this computer nobody has to say who they are. */
  const mayPublish = async (client: Client, topic: string): Promise<boolean> => {
    if (!isFromOutside(client)) return true;
    const own = known.get(client);
    if (!own || readTopic(topic)?.machine !== own.machine) return false;
    // It is looked for at every message: taken back, or past its date, it is worth nothing from then on.
    return isGood(own);
  };
  aedes.authenticate = (client, username, password, done) => {
    if (!isFromOutside(client)) return done(null, true);
    const own = { machine: username ?? '', secret: String(password ?? '') };
    // A client that comes under another one's id ends the other one's session: the id must be the machine's own.
    const isOwnId = client.id === own.machine || client.id.startsWith(`${own.machine}/`);
    isGood(own).then(
      (isKnown) => {
        const isSo = isKnown && isOwnId;
        if (isSo) known.set(client, own);
        done(null, isSo);
      },
      (error: unknown) => {
        app.log.warn(error, 'bench link');
        done(null, false);
      },
    );
  };
  // Machines speak; what others say is none of theirs.
  aedes.authorizeSubscribe = (client, subscription, done) =>
    done(null, client && isFromOutside(client) ? null : subscription);
  aedes.authorizePublish = (client, packet, done) => {
    const follow = async () => {
      if (client && !(await mayPublish(client, packet.topic))) {
        throw new Error('this is not its topic');
      }
      await listener.take(packet.topic, Buffer.from(packet.payload));
    };
    follow().then(
      () => done(null),
      (error: unknown) => done(new Error(messageOf(error), { cause: error })),
    );
  };
  const inner = createServer(aedes.handle);
  const servers: Server[] = [inner];
  const wanted = askedPort('MQTT_PORT') ?? DEFAULT_PORT;
  const port = await listenOnFirst(inner, '127.0.0.1', [wanted, 0]);
  return {
    address: `mqtt://127.0.0.1:${port}`,
    outerAddress: null,
    isListening: () => true,
    openTo: async ({ host, key, cert }) => {
      const server = createSecureServer({ key, cert }, aedes.handle);
      server.maxConnections = MOST_CONNECTIONS;
      // Who speaks no TLS is shown the door, and nobody else is bothered.
      server.on('tlsClientError', () => undefined);
      servers.push(server);
      return listenOnFirst(server, host, [askedPort('MQTTS_PORT') ?? DEFAULT_SECURE_PORT, 0]);
    },
    stop: async () => {
      await new Promise<void>((resolve) => aedes.close(resolve));
      await Promise.all(servers.map((server) => new Promise((resolve) => server.close(resolve))));
      await listener.drained();
    },
  };
}

/** Whether somebody came in by the door for machines elsewhere. */
const isFromOutside = (client: Client): boolean => (client.conn as TLSSocket).encrypted === true;
