import * as z from 'zod';
import { asJson, execute, moments, query, type Database } from '../database';
import type { Write } from '../write';
import { refusing } from './rows';

/** What this application does with a panel beyond its rows: where its judges come in, and its order. */
const panelRunRow = z.strictObject({
  link: z.string(),
  seed: z.number(),
  /** Bytes of every picture that is shown; null where parts are. */
  picture_bytes: z.number().nullable(),
  /** Whether the open link lets judges in; where cards were made, only those do. */
  is_open: z.boolean(),
  /** So many judges come in by the open link from one address. */
  per_address: z.number(),
});
export type PanelRun = z.infer<typeof panelRunRow>;

/** A card that lets one judge in. */
const panelCardRow = z.strictObject({
  link: z.string(),
  number: z.number(),
  judge_id: z.string().nullable(),
});
export type PanelCard = z.infer<typeof panelCardRow>;

/** A specimen of a panel, with its photo and the picture that was made of that. */
const panelItemRow = z.strictObject({
  specimen_id: z.string(),
  path: z.string().nullable(),
  sha256: z.string().nullable(),
  taken_out_at: z.string().nullable(),
});
export type PanelItem = z.infer<typeof panelItemRow>;

/** Somebody who judges, or the place that is kept for them. Times in ISO 8601. */
const panelJudgeRow = z.strictObject({
  judge_id: z.string(),
  number: z.number(),
  name: z.string(),
  begun_at: z.string().nullable(),
  answered_at: z.string().nullable(),
  ended_at: z.string().nullable(),
});
export type PanelJudge = z.infer<typeof panelJudgeRow>;

/** A question to a judge, with the answer. */
const askedQuestionRow = z.strictObject({
  judge_id: z.string(),
  place: z.number(),
  items: z.array(z.string()),
  codes: z.array(z.string()),
  /** Under which addresses the pictures of the items are shown. */
  pictures: z.array(z.string()),
  asks_again: z.number().nullable(),
  choice: z.enum(['1', '2', '3', 'tie']).nullable(),
  asked_at: z.string().nullable(),
  answered_at: z.string().nullable(),
  seconds: z.number().nullable(),
});
export type AskedQuestion = z.infer<typeof askedQuestionRow>;

export type Panelist = Pick<Write, 'db' | 'studyId'>;

/** How this application holds a panel; null where it does not: as a draft, or as it came from elsewhere. */
export async function findPanelRun(
  { db, studyId }: Panelist,
  panelId: string,
): Promise<PanelRun | null> {
  const [run] = await query(
    db,
    panelRunRow,
    'select link, seed, picture_bytes, is_open, per_address from panel_runs where study_id = $1 and panel_id = $2',
    [studyId, panelId],
  );
  return run ?? null;
}

const panelOfLinkRow = z.strictObject({
  study_id: z.string(),
  panel_id: z.string(),
  number: z.number().nullable(),
  judge_id: z.string().nullable(),
});

/** The panel that a link leads to; null for none. */
export async function panelOfLink(
  db: Database,
  link: string,
): Promise<{ study_id: string; panel_id: string; card: PanelCard | null } | null> {
  const [found] = await query(
    db,
    panelOfLinkRow,
    `select r.study_id, r.panel_id, null::int as "number", null::uuid as judge_id
     from panel_runs r join studies s using (study_id)
     where r.link = $1 and s.deleted_at is null
     union all
     select c.study_id, c.panel_id, c."number", c.judge_id
     from panel_cards c join studies s using (study_id)
     where c.link = $1 and s.deleted_at is null`,
    [link],
  );
  if (!found) return null;
  const { study_id, panel_id, number, judge_id } = found;
  return { study_id, panel_id, card: number === null ? null : { link, number, judge_id } };
}

/** The cards of a panel, in their order. */
export const listPanelCards = ({ db, studyId }: Panelist, panelId: string): Promise<PanelCard[]> =>
  query(
    db,
    panelCardRow,
    'select link, "number", judge_id from panel_cards where study_id = $1 and panel_id = $2 order by "number"',
    [studyId, panelId],
  );

/** Makes cards, and closes the open link: from then on a judge comes in by a card of their own. */
export async function insertPanelCards(
  { db, studyId }: Write,
  panelId: string,
  cards: readonly Pick<PanelCard, 'link' | 'number'>[],
): Promise<void> {
  await execute(
    db,
    `insert into panel_cards (link, study_id, panel_id, "number")
     select link, $1, $2, "number" from jsonb_to_recordset($3::jsonb) as c(link text, "number" integer)`,
    [studyId, panelId, asJson(cards)],
  );
  await execute(db, 'update panel_runs set is_open = false where study_id = $1 and panel_id = $2', [
    studyId,
    panelId,
  ]);
}

/** Says whose card it is from now on. */
export const setCardJudge = ({ db }: Write, link: string, judgeId: string): Promise<void> =>
  execute(db, 'update panel_cards set judge_id = $2 where link = $1', [link, judgeId]);

const countFromAddressRow = z.strictObject({ n: z.number() });

/** How many judges have begun from an address by the open link. */
export async function countFromAddress(
  { db, studyId }: Panelist,
  panelId: string,
  address: string,
): Promise<number> {
  const [found] = await query(
    db,
    countFromAddressRow,
    `select count(*)::int as n from panel_judges
     where study_id = $1 and panel_id = $2 and address = $3 and begun_at is not null`,
    [studyId, panelId, address],
  );
  return found?.n ?? 0;
}

/** Says how many judges may come in from one address. */
export const setPerAddress = (
  { db, studyId }: Write,
  panelId: string,
  count: number,
): Promise<void> =>
  execute(db, 'update panel_runs set per_address = $3 where study_id = $1 and panel_id = $2', [
    studyId,
    panelId,
    count,
  ]);

/** The judge of an id in a panel; null where there is none. */
export async function judgeOfId(
  { db, studyId }: Panelist,
  panelId: string,
  judgeId: string,
): Promise<PanelJudge | null> {
  const [judge] = await query(
    db,
    panelJudgeRow,
    `select ${JUDGE} from panel_judges where study_id = $1 and panel_id = $2 and judge_id = $3`,
    [studyId, panelId, judgeId],
  );
  return judge ?? null;
}

export const insertPanelRun = (
  { db, studyId }: Write,
  panelId: string,
  run: Pick<PanelRun, 'link' | 'seed' | 'picture_bytes'>,
): Promise<void> =>
  execute(
    db,
    'insert into panel_runs (study_id, panel_id, link, seed, picture_bytes) values ($1, $2, $3, $4, $5)',
    [studyId, panelId, run.link, run.seed, run.picture_bytes],
  );

/** The specimens of a panel, those that were taken out too. */
export const listPanelItems = ({ db, studyId }: Panelist, panelId: string): Promise<PanelItem[]> =>
  query(
    db,
    panelItemRow,
    `select specimen_id, "path", sha256, ${moments('taken_out_at')} from panel_items
     where study_id = $1 and panel_id = $2 order by specimen_id`,
    [studyId, panelId],
  );

/** Puts specimens in a panel in place of those that were in it. */
export const replacePanelItems = (
  { db, studyId }: Write,
  panelId: string,
  items: readonly Pick<PanelItem, 'specimen_id' | 'path'>[],
): Promise<void> =>
  refusing('specimens', async () => {
    const sql = 'delete from panel_items where study_id = $1 and panel_id = $2';
    await execute(db, sql, [studyId, panelId]);
    await execute(
      db,
      `insert into panel_items (study_id, panel_id, specimen_id, "path")
       select $1, $2, specimen_id, "path"
       from jsonb_to_recordset($3::jsonb) as i(specimen_id text, "path" text)`,
      [studyId, panelId, asJson(items)],
    );
  });

/** Keeps the picture that was made for a specimen. */
export const setPanelPicture = (
  { db, studyId }: Write,
  panelId: string,
  specimenId: string,
  sha256: string,
): Promise<void> =>
  execute(
    db,
    'update panel_items set sha256 = $4 where study_id = $1 and panel_id = $2 and specimen_id = $3',
    [studyId, panelId, specimenId, sha256],
  );

/** Takes a specimen out of a panel: it is not shown again, and what was said of it does not count. */
export const takeOutItem = (
  { db, studyId }: Write,
  panelId: string,
  specimenId: string,
): Promise<void> =>
  execute(
    db,
    `update panel_items set taken_out_at = now()
     where study_id = $1 and panel_id = $2 and specimen_id = $3 and taken_out_at is null`,
    [studyId, panelId, specimenId],
  );

const JUDGE = `judge_id, "number", name, ${moments('begun_at', 'answered_at', 'ended_at')}`;

/** The judges of a panel in their order, and places that are kept for some. */
export const listPanelJudges = (
  { db, studyId }: Panelist,
  panelId: string,
): Promise<PanelJudge[]> =>
  query(
    db,
    panelJudgeRow,
    `select ${JUDGE} from panel_judges where study_id = $1 and panel_id = $2 order by "number"`,
    [studyId, panelId],
  );

/** The judge of a panel who has a secret; null for none. */
export async function judgeOfToken(
  { db, studyId }: Panelist,
  panelId: string,
  tokenHash: Buffer,
): Promise<PanelJudge | null> {
  const [judge] = await query(
    db,
    panelJudgeRow,
    `select ${JUDGE} from panel_judges
     where study_id = $1 and panel_id = $2 and token_hash = $3`,
    [studyId, panelId, tokenHash],
  );
  return judge ?? null;
}

/** Adds a judge, or a place for one, with the questions. */
export async function insertPanelJudge(
  { db, studyId }: Write,
  panelId: string,
  judge: Pick<PanelJudge, 'judge_id' | 'number' | 'name'>,
  questions: readonly Pick<
    AskedQuestion,
    'place' | 'items' | 'codes' | 'pictures' | 'asks_again'
  >[],
): Promise<void> {
  await execute(
    db,
    'insert into panel_judges (judge_id, study_id, panel_id, "number", name) values ($1, $2, $3, $4, $5)',
    [judge.judge_id, studyId, panelId, judge.number, judge.name],
  );
  await execute(
    db,
    `insert into panel_questions (judge_id, place, items, codes, pictures, asks_again)
     select $1, place, items, codes, pictures, asks_again
     from jsonb_to_recordset($2::jsonb)
       as q(place integer, items text[], codes text[], pictures uuid[], asks_again integer)`,
    [judge.judge_id, asJson(questions)],
  );
}

/** Somebody sits down at a place. */
export const beginJudge = (
  { db }: Write,
  judgeId: string,
  name: string,
  tokenHash: Buffer,
  address: string,
): Promise<void> =>
  execute(
    db,
    `update panel_judges set name = $2, token_hash = $3, address = $4, begun_at = now()
     where judge_id = $1`,
    [judgeId, name, tokenHash, address],
  );

/** Says that a judge has ended, or goes on after all. */
export const setJudgeEnded = ({ db }: Write, judgeId: string, isEnded: boolean): Promise<void> =>
  execute(
    db,
    'update panel_judges set ended_at = case when $2 then coalesce(ended_at, now()) end where judge_id = $1',
    [judgeId, isEnded],
  );

const QUESTION = `q.judge_id, q.place, q.items, q.codes, q.pictures, q.asks_again, q.choice, q.seconds,
  ${moments('q.asked_at', 'q.answered_at')}`;

/** The questions of one judge, in their order. */
export const questionsOfJudge = (db: Database, judgeId: string): Promise<AskedQuestion[]> =>
  query(
    db,
    askedQuestionRow,
    `select ${QUESTION} from panel_questions q where q.judge_id = $1 order by q.place`,
    [judgeId],
  );

/** The questions of all judges of a panel. */
export const questionsOfPanel = (
  { db, studyId }: Panelist,
  panelId: string,
): Promise<AskedQuestion[]> =>
  query(
    db,
    askedQuestionRow,
    `select ${QUESTION} from panel_questions q join panel_judges j using (judge_id)
     where j.study_id = $1 and j.panel_id = $2 order by j."number", q.place`,
    [studyId, panelId],
  );

/** Notes that a question was put, the first time that it is. */
export const noteAsked = ({ db }: Write, judgeId: string, place: number): Promise<void> =>
  execute(
    db,
    `update panel_questions set asked_at = now()
     where judge_id = $1 and place = $2 and asked_at is null`,
    [judgeId, place],
  );

/** Keeps an answer in place of the one before; the time is that of the first. */
export async function keepChoice(
  { db }: Write,
  judgeId: string,
  place: number,
  choice: NonNullable<AskedQuestion['choice']>,
): Promise<void> {
  await execute(
    db,
    `update panel_questions set choice = $3, answered_at = coalesce(answered_at, now()),
       seconds = coalesce(seconds, extract(epoch from now() - asked_at))
     where judge_id = $1 and place = $2`,
    [judgeId, place, choice],
  );
  await execute(db, 'update panel_judges set answered_at = now() where judge_id = $1', [judgeId]);
}

const findPanelPictureRow = z.strictObject({ sha256: z.string(), picture_bytes: z.number() });

/** The picture of a question of a judge: its content, and how many bytes it is given; null for none. */
export async function findPanelPicture(
  { db, studyId }: Panelist,
  panelId: string,
  judgeId: string,
  picture: string,
): Promise<{ sha256: string; picture_bytes: number } | null> {
  const [found] = await query(
    db,
    findPanelPictureRow,
    `select i.sha256, r.picture_bytes from panel_questions q
     join panel_judges j using (judge_id)
     join panel_runs r using (study_id, panel_id)
     join panel_items i on i.study_id = j.study_id and i.panel_id = j.panel_id
       and i.specimen_id = q.items[array_position(q.pictures, $4::uuid)]
     where j.study_id = $1 and j.panel_id = $2 and j.judge_id = $3 and $4::uuid = any(q.pictures)`,
    [studyId, panelId, judgeId, picture],
  );
  return found ?? null;
}

/** Puts the answers of a panel among the ballots of the study, with the time that each took. */
export async function bookBallots(
  write: Write,
  panelId: string,
  ballots: readonly {
    judge: string;
    items: readonly string[];
    choice: string;
    at: string | null;
    seconds: number | null;
  }[],
): Promise<void> {
  const { db, studyId } = write;
  const rows = asJson(
    ballots.map(({ items, ...one }) => ({
      ...one,
      item_1: items[0],
      item_2: items[1],
      item_3: items[2] ?? null,
    })),
  );
  const from = `from jsonb_to_recordset($3::jsonb) as b(judge text, item_1 text, item_2 text,
    item_3 text, choice text, at text, seconds double precision)`;
  await execute(
    db,
    `insert into ballots (study_id, panel_id, judge, item_1, item_2, item_3, "choice", at)
     select $1, $2, judge, item_1, item_2, item_3, choice, at ${from}`,
    [studyId, panelId, rows],
  );
  await execute(
    db,
    `insert into ballot_times (study_id, panel_id, judge, item_1, item_2, item_3, seconds)
     select $1, $2, judge, item_1, item_2, item_3, round(seconds::numeric, 1) ${from}
     where seconds is not null`,
    [studyId, panelId, rows],
  );
  write.touch('ballots');
  write.touch('ballot_times');
}

const openPanelsRow = z.strictObject({
  study_id: z.string(),
  panel_id: z.string(),
  closes_at: z.string().nullable(),
});

/** The panels that are held here and have not ended, with what may end them. */
export const openPanels = (
  db: Database,
): Promise<{ study_id: string; panel_id: string; closes_at: string | null }[]> =>
  query(
    db,
    openPanelsRow,
    `select study_id, panel_id, closes_at from panel_setups
     join panel_runs using (study_id, panel_id) join studies using (study_id)
     where closed_at is null and deleted_at is null`,
  );

const panelsWithRow = z.strictObject({ panel_id: z.string(), aspect: z.string() });

/** What the panels are called, not revealed yet, in which a specimen is, or a photo is shown. */
export const panelsWith = (
  { db, studyId }: Panelist,
  what: { specimen_id?: string; path?: string; print_id?: string },
): Promise<{ panel_id: string; aspect: string }[]> =>
  query(
    db,
    panelsWithRow,
    `select p.panel_id, p.aspect from panel_items i
     join panel_runs r using (study_id, panel_id)
     join panel_setups s using (study_id, panel_id)
     join panels p using (study_id, panel_id)
     where i.study_id = $1 and s.closed_at is null and i.taken_out_at is null
       and ($2::text is null or i.specimen_id = $2) and ($3::text is null or i."path" = $3)
       and ($4::text is null or i.specimen_id in (
         select specimen_id from specimens where study_id = $1 and print_id = $4))`,
    [studyId, what.specimen_id ?? null, what.path ?? null, what.print_id ?? null],
  );
