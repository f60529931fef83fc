import { Command, InvalidArgumentError } from 'commander';
import { morning } from './morning';
import { play } from './play';
import { timeline } from './timeline';

const positive = (text: string): number => {
  const value = Number(text);
  if (!(value > 0)) throw new InvalidArgumentError('it must be over 0');
  return value;
};

interface Flags {
  broker: string;
  machines: string[];
  speed: number;
  quiet?: boolean;
}

const program = new Command('simulate')
  .description('let simulated machines heat, print, pause, stand still and fail on the bench link')
  .option('--broker <address>', 'where the bench link is', 'mqtt://127.0.0.1:4683')
  .option('--machines <ids...>', 'ids of machines of a linked study', ['auklet', 'gannet'])
  .option('--speed <factor>', 'virtual seconds to a real one', positive, 60)
  .option('--quiet', 'do not print what the machines say')
  .parse();
const { broker, machines, speed, quiet } = program.opts<Flags>();
const from = new Date();
const session = `sim-${from.getTime().toString(36)}`;
await Promise.all(
  morning(machines.length).map((jobs, at) =>
    play(timeline(`${session}-${at}`, jobs), {
      broker,
      speed,
      from,
      machine: machines[at] ?? '',
      ...(!quiet && { onSay: (text: string) => process.stdout.write(`${text}\n`) }),
    }),
  ),
);
