import type { ShownTask } from '../../contract/desk';
import { counted } from '../lib/format';

/** How a task is written: its verb, what it is about, why it is there, and where it is done. */
export interface TaskWords {
  verb: string;
  what: string;
  why: string;
  action: string;
  href: string;
}

const dayOf = (iso: string): string =>
  new Date(`${iso.slice(0, 10)}T00:00:00Z`).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone: 'UTC',
  });

/** A task of the desk in words. */
export function taskWords({ task, title, mark, artefact }: ShownTask): TaskWords {
  const base = `/studies/${task.study_id}`;
  switch (task.kind) {
    case 'start':
      return {
        verb: 'Start',
        what: `${artefact ?? task.print.artefact_id}, repeat ${task.print.repeat}`,
        why: `${mark?.label ?? task.print.contender_id} is free · ${title}`,
        action: 'Start print',
        href: `${base}/runs`,
      };
    case 'measure':
      return {
        verb: 'Measure',
        what: `${counted(task.count, 'dimension')} of printed parts`,
        why: title,
        action: 'Measure',
        href: `${base}/measure`,
      };
    case 'inspect':
      return {
        verb: 'Inspect',
        what: `${counted(task.count, 'zone')} of printed parts`,
        why: title,
        action: 'Inspect',
        href: `${base}/inspect`,
      };
    case 'file':
      return {
        verb: 'Assign',
        what: `${counted(task.count, 'photo')} to specimens`,
        why: title,
        action: 'Open photos',
        href: `${base}/inspect/photos`,
      };
    case 'complete':
      return {
        verb: 'Complete',
        what: counted(task.count, 'finished print'),
        why: `mass, time or parts are missing · ${title}`,
        action: 'Open runs',
        href: `${base}/runs`,
      };
    case 'return':
      return {
        verb: 'Return',
        what: `${task.loan.name} ${when(task.days, task.loan.returnBy)}`,
        why:
          task.prints === 0
            ? 'all its planned prints are done'
            : `${counted(task.prints, 'print')} still planned on it`,
        action: 'Open plan',
        href: `${base}/plan`,
      };
  }
}

function when(days: number, returnBy: string): string {
  if (days < 0) return `(was due on ${dayOf(returnBy)})`;
  if (days === 0) return 'today';
  return `by ${dayOf(returnBy)} (${counted(days, 'day')} left)`;
}
