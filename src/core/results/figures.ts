import type { Evidence } from '../evidence';
import { SECTIONS, sectionOfFigure } from './registry';
import type { Section, SectionContext } from './section';

/**
 * What a figure was computed from. A figure is named by a path: `accuracy/<contender>`,
 * `group/<contender>/<axis, kind or range of size>`, `tolerance/<contender>`, `fit/<contender>/<axis>`,
 * `pair/<contender>`, `speed/<contender>[/<artefact>]`, `time/<contender>`,
 * `surface/<contender>`, `zone/<contender>/<artefact>:<zone>`, `finish/<contender>` (surface against the
 * reference), `reliability/<contender>`, `incidents/<contender>`, `cost/<contender>/<artefact>`.
 *
 * @returns null where there is no such figure
 */
export function evidenceOf(context: SectionContext, figure: string): Evidence | null {
  const [kind = '', contender = '', part] = figure.split('/');
  const row = context.index.contenders.get(contender);
  const name = sectionOfFigure(figure);
  if (!row || name === null) return null;
  const evidence = (SECTIONS[name] as unknown as Section).evidence?.[kind]?.(
    context,
    contender,
    part,
  );
  return evidence ? { ...evidence, title: `${row.label}: ${evidence.title}` } : null;
}
