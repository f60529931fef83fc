import { spawn } from 'node:child_process';
import { on, once } from 'node:events';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { createServer as createSecureServer } from 'node:tls';
import { Aedes } from 'aedes';

/** Somebody else's broker: by TLS it wants a user and a password, on this computer it does not. */
export interface OutsideBroker {
  plain: string;
  secure: string;
  /** Who has come by TLS, by name, each as often as it came. */
  came: string[];
  close: () => Promise<void>;
}

export interface Certificate {
  key: string | Buffer;
  cert: string | Buffer;
}

export const BROKER_USER = { name: 'bench', password: 'let me in' };
const DEBIANS = '/usr/sbin/mosquitto';

/** A broker that is not the application's own: Debian's where it is installed, else one of a library. */
export const outsideBroker = (certificate: Certificate): Promise<OutsideBroker> =>
  existsSync(DEBIANS) ? brokerOfDebian(certificate) : brokerOfLibrary(certificate);

/** Two ports of this computer that nobody listens on. */
async function freePorts(): Promise<number[]> {
  const servers = [createServer(), createServer()];
  const ports: number[] = [];
  for (const server of servers) {
    server.listen(0, '127.0.0.1');
    await once(server, 'listening');
    ports.push((server.address() as AddressInfo).port);
  }
  await Promise.all(servers.map((server) => new Promise((resolve) => server.close(resolve))));
  return ports;
}

async function brokerOfDebian({ key, cert }: Certificate): Promise<OutsideBroker> {
  const folder = mkdtempSync(join(tmpdir(), 'vergleich-broker-'));
  const file = (name: string, content: string | Buffer) => {
    writeFileSync(join(folder, name), content, { mode: 0o600 });
    return join(folder, name);
  };
  const [plain = 0, secure = 0] = await freePorts();
  const { name, password } = BROKER_USER;
  const passwords = file('users', `${name}:${password}\n`);
  await once(spawn('mosquitto_passwd', ['-U', passwords], { stdio: 'ignore' }), 'exit');
  const configuration = file(
    'broker.conf',
    [
      'per_listener_settings true',
      'log_dest stderr',
      'log_type notice',
      'log_type information',
      'max_queued_messages 100000',
      'persistence false',
      // It would become another user, who may not read these files.
      `user ${process.env.USER ?? 'root'}`,
      `listener ${plain} 127.0.0.1`,
      'allow_anonymous true',
      `listener ${secure} 127.0.0.1`,
      'allow_anonymous false',
      `password_file ${passwords}`,
      `certfile ${file('cert.pem', cert)}`,
      `keyfile ${file('key.pem', key)}`,
    ].join('\n'),
  );
  const child = spawn(DEBIANS, ['-c', configuration], { stdio: ['ignore', 'ignore', 'pipe'] });
  const came: string[] = [];
  const lines = createInterface(child.stderr);
  lines.on('line', (line) => {
    const [, client] = /New client connected from .* as (vergleich\S*) /.exec(line) ?? [];
    if (client !== undefined) came.push(client);
  });
  for await (const [line] of on(lines, 'line')) if (String(line).includes('running')) break;
  return {
    plain: `mqtt://127.0.0.1:${plain}`,
    secure: `mqtts://127.0.0.1:${secure}`,
    came,
    close: async () => {
      const gone = once(child, 'exit');
      child.kill();
      await gone;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

async function brokerOfLibrary(certificate: Certificate): Promise<OutsideBroker> {
  const aedes = await Aedes.createBroker();
  const came: string[] = [];
  const isListener = (id: string | undefined) => id?.startsWith('vergleich') ?? false;
  /** Who came back and has not yet been told what was said meanwhile. */
  const behind = new Map<string, () => void>();
  let caughtUp = Promise.resolve();
  aedes.preConnect = (_client, packet, done) => {
    if (isListener(packet.clientId)) {
      caughtUp = new Promise((resolve) => behind.set(packet.clientId ?? '', resolve));
    }
    done(null, true);
  };
  aedes.on('clientReady', ({ id }) => behind.get(id)?.());
  // What is said now comes after what was kept, as the standard asks of a broker: this one tells both at once.
  aedes.authorizePublish = (_client, _packet, done) => void caughtUp.then(() => done(null));
  aedes.on('client', ({ id }) => {
    if (isListener(id)) came.push(id);
  });
  aedes.authenticate = ({ conn }, user, password, done) => {
    const { name, password: known } = BROKER_USER;
    done(null, !('encrypted' in conn) || (user === name && String(password) === known));
  };
  const plain = createServer(aedes.handle);
  const secure = createSecureServer(certificate, aedes.handle);
  for (const server of [plain, secure]) {
    server.listen(0, '127.0.0.1');
    await once(server, 'listening');
  }
  const portOf = (server: typeof plain) => (server.address() as AddressInfo).port;
  return {
    plain: `mqtt://127.0.0.1:${portOf(plain)}`,
    secure: `mqtts://127.0.0.1:${portOf(secure)}`,
    came,
    close: async () => {
      await new Promise<void>((resolve) => aedes.close(resolve));
      for (const server of [plain, secure]) server.close();
    },
  };
}
