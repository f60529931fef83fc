import mqtt, { type MqttClient } from 'mqtt';
import { TOPICS } from '../src/core/model/link';
import type { Doing } from './timeline';

export interface PlayOptions {
  broker: string;
  machine: string;
  /** Virtual seconds to a real one. */
  speed: number;
  /** The virtual clock's start. */
  from: Date;
  /** Told what the machine says. */
  onSay?: (text: string) => void;
}

const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

const connect = (broker: string, machine: string): Promise<MqttClient> =>
  mqtt.connectAsync(broker, {
    reconnectPeriod: 500,
    // The broker says so when the machine is gone without a word.
    will: { topic: TOPICS.presence(machine), payload: Buffer.from('lost'), qos: 1, retain: true },
  });

/** Plays a machine's doings on the bench link, in its virtual time. */
export async function play(doings: readonly Doing[], options: PlayOptions): Promise<void> {
  const { broker, machine, speed, from, onSay } = options;
  const began = Date.now();
  let client = await connect(broker, machine);
  const up = () => client.publishAsync(TOPICS.presence(machine), 'up', { qos: 1, retain: true });
  await up();
  for (const doing of doings) {
    const due = began + (1000 * doing.at_s) / speed - Date.now();
    if (due > 0) await wait(due);
    const at = new Date(from.getTime() + 1000 * doing.at_s).toISOString();
    if (doing.kind === 'lose') {
      onSay?.(`${machine} loses its connection`);
      client.stream.destroy();
      await client.endAsync(true);
    } else if (doing.kind === 'return') {
      client = await connect(broker, machine);
      await up();
      onSay?.(`${machine} is back`);
    } else {
      const topic = doing.kind === 'say' ? TOPICS.state(machine) : TOPICS.meter(machine);
      await client.publishAsync(topic, JSON.stringify({ ...doing.message, at }), { qos: 1 });
      if (doing.kind === 'say')
        onSay?.(`${machine} ${doing.message.state} ${doing.message.progress ?? ''}`);
    }
  }
  await client.endAsync();
}
