import type { ContenderMark } from '../../core/model/study';

/** The contenders of which something is known, in their order, each with it. */
export const knownOf = <Own>(
  marks: readonly ContenderMark[],
  byContender: Readonly<Record<string, Own>>,
): { mark: ContenderMark; own: Own }[] =>
  marks.flatMap((mark) => {
    const own = byContender[mark.contender_id];
    return own === undefined ? [] : [{ mark, own }];
  });

/** What lies within the smallest difference of interest about the reference; null where either is not known. */
export const bandAbout = (
  centre: number | null | undefined,
  delta: number | null,
): readonly [number, number] | null =>
  centre == null || delta === null ? null : [centre - delta, centre + delta];
