import * as z from 'zod';
import { INCIDENT_MODES, isIsoTime, isPlainText } from '../study';

/** What a machine can say that it does. */
const MACHINE_STATES = ['idle', 'heating', 'printing', 'paused', 'done', 'failed'] as const;

const time = z.string().refine(isIsoTime, 'must be an ISO 8601 time with offset');

const word = (limit: number) =>
  z.string().min(1).max(limit).refine(isPlainText, 'holds a control character');

/** A message of a machine on the bench link. */
export const machineMessageSchema = z.object({
  /** The sender's run: a restart begins another one. */
  session: word(64),
  /** Counts the messages of a session, from 1. */
  sequence: z.number().int().min(1).max(Number.MAX_SAFE_INTEGER),
  at: time,
  state: z.enum(MACHINE_STATES),
  /** Which print: the same as long as it lasts. Absent when idle. */
  job: word(128).optional(),
  /** The sliced file that is printed, by its name. */
  file: word(255).optional(),
  /** Share of the print that is done, 0…1. */
  progress: z.number().min(0).max(1).optional(),
  /** What went wrong, where the print failed. */
  reason: z.enum(INCIDENT_MODES).optional(),
});

/** A message of a power meter: what has run through it so far. */
export const meterMessageSchema = z.object({
  session: word(64),
  sequence: z.number().int().min(1).max(Number.MAX_SAFE_INTEGER),
  at: time,
  energy_wh: z.number().min(0).max(1e9),
});

export type MachineMessage = z.infer<typeof machineMessageSchema>;
export type MeterMessage = z.infer<typeof meterMessageSchema>;

/** The largest message that is read. */
export const LARGEST_MESSAGE = 16 * 1024;

/** Topics: `vergleich/1/machine/<id>/state`, `…/link` (up, lost), `vergleich/1/meter/<id>`. */
export const TOPICS = {
  everything: 'vergleich/1/#',
  state: (machine: string) => `vergleich/1/machine/${machine}/state`,
  presence: (machine: string) => `vergleich/1/machine/${machine}/link`,
  meter: (machine: string) => `vergleich/1/meter/${machine}`,
} as const;

export type Topic = { kind: 'state' | 'presence' | 'meter'; machine: string } | null;

/** What a topic is about; null for one that is none of ours. */
export function readTopic(topic: string): Topic {
  const parts = topic.split('/');
  if (parts[0] !== 'vergleich' || parts[1] !== '1') return null;
  const machine = parts[3] ?? '';
  if (machine === '') return null;
  if (parts[2] === 'meter' && parts.length === 4) return { kind: 'meter', machine };
  if (parts[2] !== 'machine' || parts.length !== 5) return null;
  if (parts[4] === 'state') return { kind: 'state', machine };
  return parts[4] === 'link' ? { kind: 'presence', machine } : null;
}
