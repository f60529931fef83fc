import type { SimulatedJob } from './timeline';

/** What happens to a fleet in a morning: pauses, a stand-still, a lost connection, two failures. */
export function morning(machines: number): SimulatedJob[][] {
  return Array.from({ length: machines }, (_, at): SimulatedJob[] => {
    const usual: SimulatedJob = {
      heat_s: 180 + 10 * at,
      print_s: 3600 + 240 * at,
      rest_s: 600,
    };
    const first: SimulatedJob = {
      ...usual,
      ...(at % 4 === 1 && { pause: { after_s: 1200, for_s: 420 } }),
      ...(at === 2 && { stall: { after_s: 1800, for_s: 1500 } }),
      ...(at === 3 && { silence: { after_s: 600, for_s: 900 } }),
      ...(at === 5 && { fails: { after_s: 1500, reason: 'detached' as const } }),
    };
    const second: SimulatedJob = {
      ...usual,
      ...(at === 7 && { fails: { after_s: 2400, reason: 'clogged' as const } }),
    };
    return [first, second];
  });
}
