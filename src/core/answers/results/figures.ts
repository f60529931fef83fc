import type { Evidence } from '../evidence';
import { parseAddress, type FigureAddress } from '../figure-address';
import type { StudyIndex } from '../../model/study';
import { SECTIONS, sectionOfFigure } from './registry';
import type { Section, SectionContext } from './section';

/**
 * What the figure at an address was computed from, where its section says that
 * (`accuracy:<contender>:by_axis.x.mae_mm`, `pairs:<contender>:surface`, `defects:zones:<contender>.<zone>.mean`).
 *
 * @returns null where there is no such figure
 */
export function evidenceOf(context: SectionContext, address: string): Evidence | null {
  const parsed = parseAddress(address);
  const name = sectionOfFigure(address);
  const contender = parsed && contenderIn(parsed, context.index);
  if (!parsed || !contender || name === null) return null;
  const { evidence }: Pick<Section, 'evidence'> = SECTIONS[name];
  const found = evidence?.(context, { ...parsed, contender: contender.contender_id });
  return found ? { ...found, title: `${contender.label}: ${found.title}` } : null;
}

/** Whose a figure is: whom its section is listed by, else the one that its key names; of several the longest. */
function contenderIn({ who, key }: FigureAddress, { contenders }: StudyIndex) {
  const named = [...contenders.values()].filter(({ contender_id: id }) =>
    `.${key}`.includes(`.${id}.`),
  );
  named.sort((a, b) => b.contender_id.length - a.contender_id.length);
  return contenders.get(who) ?? named[0] ?? null;
}
