import { idFrom } from '../../model/study';

/** An id of a panel's question that is not taken: the last words of it. */
export const idOfPanel = (text: string, taken: Iterable<string>): string =>
  idFrom(
    text
      .replace(/[^\p{Letter}\p{Number}\s_-]/gu, '')
      .trim()
      .split(/[\s_]+/)
      .slice(-4)
      .join(' '),
    taken,
    'panel',
  );
