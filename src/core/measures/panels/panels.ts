import { groupBy, type Row, type StudyIndex } from '../../model/study';
import { itemsOf } from './habits';
import { chanceOf } from './needed';
import { abilitiesOf, type Ability, type PairedBallot } from './paired';
import { toldApart, type RightOrWrong, type ToldApart } from './told-apart';

interface Answered {
  ballots: number;
  judges: number;
  notes: string[];
}

/** Which is better, by ballots on pairs. */
export interface PairedPanel extends Answered {
  kind: 'paired';
  ties: number;
  abilities: Record<string, Ability>;
}

/** Whether people can tell which is which. */
export type TellingPanel = Answered & ToldApart & { kind: 'triangle' | 'guess' };

export type Panel = PairedPanel | TellingPanel;

/** Every panel of a study. */
export function panelsOfAll(
  index: StudyIndex,
  reference: string | null,
  alpha: number,
): Record<string, Panel> {
  const { panels, ballots } = index.study.tables;
  const ofPanel = groupBy(ballots, (row) => row.panel_id);
  return Object.fromEntries(
    panels.map((panel) => [
      panel.panel_id,
      panelOf(index, panel, ofPanel.get(panel.panel_id) ?? [], reference, alpha),
    ]),
  );
}

function panelOf(
  index: StudyIndex,
  panel: Row<'panels'>,
  rows: readonly Row<'ballots'>[],
  reference: string | null,
  alpha: number,
): Panel {
  const contenderOf = (specimenId: string): string => ownerIn(index, specimenId);
  const answered: Answered = {
    ballots: rows.length,
    judges: new Set(rows.map((row) => row.judge)).size,
    notes: rows.length === 0 ? ['no ballot yet'] : [],
  };
  if (panel.kind === 'paired') {
    const ballots = rows.map((row): PairedBallot => ({
      judge: row.judge,
      first: contenderOf(row.item_1),
      second: contenderOf(row.item_2),
      share: row.choice === '1' ? 1 : row.choice === '2' ? 0 : 0.5,
    }));
    return {
      kind: 'paired',
      ...answered,
      ties: rows.filter((row) => row.choice === 'tie').length,
      abilities: abilitiesOf(ballots, reference, alpha),
    };
  }
  const answers = rows.map((row): RightOrWrong => {
    const at = row.at === null ? null : Date.parse(row.at);
    const isRight = isRightAnswer(index, panel, row);
    return { judge: row.judge, isRight, at: Number.isNaN(at) ? null : at, items: itemsOf(row) };
  });
  return { kind: panel.kind, ...answered, ...toldApart(answers, chanceOf(panel.kind), alpha) };
}

const ownerIn = (index: StudyIndex, specimenId: string): string =>
  index.prints.get(index.specimens.get(specimenId)?.print_id ?? '')?.contender_id ?? '';

/** Whether an answer to a triangle names the odd one, or to a guess the one that was asked after. */
export function isRightAnswer(
  index: StudyIndex,
  panel: Row<'panels'>,
  row: Row<'ballots'>,
): boolean {
  const owners = itemsOf(row).map((id) => ownerIn(index, id));
  const chosen = owners[Number(row.choice) - 1];
  return panel.kind === 'guess'
    ? chosen === panel.target
    : owners.filter((owner) => owner === chosen).length === 1;
}
