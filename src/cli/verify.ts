import { describeDeparture } from '../core/text/report';
import { ReportError, verifyReport } from '../files/report/verify';
import { InputError } from './input-error';

/** `vergleich verify`: computes a report's data anew and compares every figure that it states. */
export async function runVerify(path: string): Promise<void> {
  const { figures, follow, departures, notes } = await verifyReport(path).catch(
    (error: unknown) => {
      throw error instanceof ReportError ? new InputError(`${path}: ${error.message}`) : error;
    },
  );
  const said = `${follow} of ${figures} figures follow from the data`;
  if (departures.length > 0) {
    throw new InputError([...departures.map(describeDeparture), said].join('\n'));
  }
  process.stdout.write(`${[said, ...notes].join('; ')}\n`);
}
