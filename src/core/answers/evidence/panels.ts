import { counted, type StudyIndex } from '../../model/study';
import { evidenceTable, type Evidence } from './evidence';

/**
 * Evidence of how a contender stands in a panel: the ballots that showed a specimen of it.
 *
 * @returns null where there is no such panel
 */
export function panelEvidence(
  index: StudyIndex,
  contenderId: string,
  panelId: string,
): Evidence | null {
  const panel = index.study.tables.panels.find((row) => row.panel_id === panelId);
  if (!panel) return null;
  const ownerOf = (id: string | null) =>
    index.prints.get(index.specimens.get(id ?? '')?.print_id ?? '')?.contender_id ?? null;
  const nameOf = (id: string | null): string | null => {
    if (id === null) return null;
    const contender = index.contenders.get(ownerOf(id) ?? '');
    return `${contender?.label ?? '?'}, ${index.specimens.get(id)?.code ?? id}`;
  };
  const own = index.study.tables.ballots.filter(
    (row) =>
      row.panel_id === panelId &&
      [row.item_1, row.item_2, row.item_3].some((id) => id !== null && ownerOf(id) === contenderId),
  );
  const when = (row: (typeof own)[number]) => row.at ?? '';
  // As they were given: judge by judge, each in their order.
  own.sort((a, b) =>
    a.judge === b.judge ? (when(a) < when(b) ? -1 : 1) : a.judge < b.judge ? -1 : 1,
  );
  const chosen = (row: (typeof own)[number]): string =>
    row.choice === 'tie'
      ? 'no difference'
      : (nameOf([row.item_1, row.item_2, row.item_3][Number(row.choice) - 1] ?? null) ?? '?');
  const isTriangle = panel.kind === 'triangle';
  return {
    title: panel.aspect,
    sentence: `${counted(own.length, 'ballot')} showed a specimen of this contender.`,
    formula:
      panel.kind === 'paired'
        ? 'Bradley–Terry by maximum likelihood, a ballot without a difference half a win each; ln of ' +
          'the ability over the reference’s. Where judges have several ballots, the variance is ' +
          'clustered by judge and the interval from t.'
        : `Right answers against guessing alone (1/${isTriangle ? 3 : 2}), exact binomial; where a ` +
          'judge has several ballots, their first one counts for p.',
    tables: [
      evidenceTable(
        'Ballots',
        ['judge', 'left', ...(isTriangle ? ['middle'] : []), 'right', 'chosen', 'at'],
        own.map((row) => [
          row.judge,
          nameOf(row.item_1),
          ...(isTriangle ? [nameOf(row.item_2)] : []),
          nameOf(isTriangle ? row.item_3 : row.item_2),
          chosen(row),
          row.at?.slice(0, 16).replace('T', ' ') ?? null,
        ]),
      ),
    ],
    notes: [],
  };
}
