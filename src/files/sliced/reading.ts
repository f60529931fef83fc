import type { OrRefused } from '../../core/model/faults';
import type { MessagePort } from 'node:worker_threads';
import type { LineUp, Purpose, ToolpathFacts } from '../../core/toolpath';

/** What a worker thread is to read. */
export interface ReadTask {
  path: string;
  /** The file's name as it is shown. */
  name: string;
  /** What the file is for, where a person has said so. */
  confirmed: Purpose | null;
  lineUp: LineUp;
  /** Told the share of the file that was read. */
  port: MessagePort;
}

/** What became of a reading: the facts and what the file is for, or why it cannot be read. */
export type ReadOutcome = OrRefused<{ facts: ToolpathFacts; purpose: Purpose }>;
