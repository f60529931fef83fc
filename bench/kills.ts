import { killAtRandom } from '../tests/support/kills';
import type { Line } from './line';

const KILLS = 200;

/**
 * Kills server, worker and the database's postmaster at random while entries come in.
 *
 * @param crash kills the postmaster, and starts it again
 */
export async function benchKills(databaseUrl: string, crash: () => Promise<void>): Promise<Line[]> {
  const seed = Date.now() % 1_000_000;
  process.stdout.write(`seed ${seed}\n`);
  const { kills, acknowledged, faults } = await killAtRandom(databaseUrl, crash, {
    kills: KILLS,
    seed,
    tell: (done) => done % 20 === 0 && process.stdout.write(`${done} kills\n`),
  });
  for (const fault of faults) process.stdout.write(`${fault}\n`);
  const line = (what: string, figure: number): Line => ({
    what,
    figure: String(figure),
    bar: '',
    isMet: true,
  });
  return [
    ...Object.entries(kills).map(([victim, count]) => line(`kills: ${victim}`, count)),
    ...Object.entries(acknowledged).map(([kind, count]) => line(`acknowledged: ${kind}`, count)),
    {
      what: 'lost, twice, half or refused',
      figure: String(faults.length),
      bar: '= 0',
      isMet: faults.length === 0,
    },
  ];
}
