import { pino, type DestinationStream, type Logger } from 'pino';
import { presentRequest } from './http/scope';

/**
 * What is written down of an error: an error of the database holds its whole connection too, with
 * what lets one in there.
 */
function plainError(error: unknown): object {
  if (!(error instanceof Error)) return { message: String(error) };
  const { name, message, stack } = error;
  const code: unknown = 'code' in error ? error.code : undefined;
  return { name, message, ...(typeof code === 'string' && { code }), stack };
}

/**
 * A line of JSON each, on stderr unless told otherwise, with the request that it is of; never a secret or a
 * reading.
 */
export const openLog = (
  level: string = process.env.LOG_LEVEL ?? 'warn',
  destination: DestinationStream = pino.destination(2),
): Logger =>
  pino(
    {
      level,
      base: { pid: process.pid },
      serializers: { err: plainError },
      mixin: () => {
        const request = presentRequest();
        return request ? { request: request.id, actor: request.actor } : {};
      },
    },
    destination,
  );
