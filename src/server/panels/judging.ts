import { buffersOf } from '../../files/buffers';
import { createHash } from 'node:crypto';
import * as z from 'zod';
import type { PanelKind } from '../../core/model/study';
import {
  beginJudge,
  countFromAddress,
  findPanelPicture,
  findPanelRun,
  judgeOfId,
  judgeOfToken,
  keepChoice,
  listPanelItems,
  listPanelJudges,
  noteAsked,
  panelOfLink,
  questionsOfJudge,
  readFile,
  setCardJudge,
  setJudgeEnded,
  writeStudy,
  type AskedQuestion,
  type PanelCard,
  type Panelist,
  type PanelJudge,
  type Write,
} from '../../data';
import { paddedJpeg } from '../../files/photos';
import { doors } from '../network/doors';
import { hashOf, isToken, newToken } from '../access/tokens';
import { checkBeginnings } from '../access/tries';
import { cookieOf } from '../access/who';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { closeIfDue, hasEnded } from './closing';
import { addPlaces } from './course';
import { findHeld, planOf, type Held } from './held';
import { placeOf } from './pictures';

/** What a judge is told: nothing of it hangs on whose parts they see, but the pictures themselves. */
export interface Judging {
  aspect: string;
  kind: PanelKind;
  shown_as: 'photos' | 'parts';
  /** Whether judges are asked for their initials. */
  wants_initials: boolean;
  /** Of parts: the places that nobody has sat down at. */
  free_places: number[];
  state: 'new' | 'asking' | 'done' | 'stopped' | 'closed' | 'full' | 'by card';
  /** How the judge is called; null before they begin. */
  name: string | null;
  question: {
    /** Which one it is, from 1, and of how many. */
    number: number;
    of: number;
    /** What the things are called, from left to right. */
    codes: string[];
    /** The addresses of their pictures; none where parts lie on the table. */
    pictures: string[];
    /** Their width over their height, so that their room is kept while they load; null without any. */
    picture_shape: number | null;
    /** What was answered before: a code, or that there is no difference. */
    answer: string | null;
  } | null;
}

/** What stands for "no difference" in an answer. */
const NO_DIFFERENCE = 'none';

/** What is kept of an answer: the place of the picture, of three at most. */
const PLACES = ['1', '2', '3'] as const;

export const beginSchema = z.strictObject({
  initials: z.string().trim().min(1, 'say your initials').max(12, 'initials are short').optional(),
  place: z.number().int().min(1).max(10_000).optional(),
});

export const answerSchema = z.strictObject({
  question: z.number().int().min(1).max(1000),
  answer: z.string().max(10),
});

/** The cookie by which a judge of a panel is known; each panel has its own. */
const judgeCookie = (link: string): string => {
  const mark = createHash('sha256').update(link).digest('hex').slice(0, 12);
  return `${doors().isSecure ? '__Host-' : ''}judge-${mark}`;
};

const COOKIE_DAYS = 60;

/** The header that gives a judge their cookie. */
export const judgeCookieHeader = (link: string, token: string): string =>
  `${judgeCookie(link)}=${token}; Path=/; HttpOnly; SameSite=Lax; ` +
  `Max-Age=${COOKIE_DAYS * 24 * 3600}${doors().isSecure ? '; Secure' : ''}`;

/** The panel of a link. @throws RequestError 404, the same for all that is no link */
async function panelAt(
  app: App,
  link: string,
): Promise<{ studyId: string; panelId: string; card: PanelCard | null }> {
  const found = isToken(link) ? await panelOfLink(app.db, link) : null;
  if (!found) {
    throw new RequestError(
      404,
      'This link belongs to no panel. Ask the person who gave it to you for a new one.',
    );
  }
  return { studyId: found.study_id, panelId: found.panel_id, card: found.card };
}

/** Runs something about a panel in one write: nobody ends it meanwhile. */
async function atPanel<Result>(
  app: App,
  link: string,
  headers: Headers,
  work: (write: Write, held: Held, judge: PanelJudge | null, isClosed: boolean) => Promise<Result>,
): Promise<Result> {
  const { studyId, panelId, card } = await panelAt(app, link);
  const token = cookieOf(headers, judgeCookie(link));
  return writeStudy(app.db, studyId, null, async (write) => {
    const held = await findHeld(write, panelId);
    const isClosed = await closeIfDue(write, held);
    const judge = await judgeBy(write, panelId, token, card);
    return work(write, held, judge, isClosed);
  });
}

/** The judge whose card it is, else the one whom the cookie names; null where somebody is new. */
async function judgeBy(
  of: Panelist,
  panelId: string,
  token: string | null,
  card: PanelCard | null,
): Promise<PanelJudge | null> {
  if (card) return card.judge_id === null ? null : judgeOfId(of, panelId, card.judge_id);
  return token !== null && isToken(token) ? judgeOfToken(of, panelId, hashOf(token)) : null;
}

/** What a judge sees now, or at a question that they have come to. */
export const judgingAt = (
  app: App,
  link: string,
  headers: Headers,
  asked: number | null = null,
): Promise<Judging> =>
  atPanel(app, link, headers, (write, held, judge, isClosed) =>
    stateOf(write, held, judge, isClosed, link, asked),
  );

/** Lets somebody judge; whoever began before goes on. @throws RequestError 429 where too many begin at one address */
export async function begin(
  app: App,
  link: string,
  headers: Headers,
  address: string,
  said: z.infer<typeof beginSchema>,
): Promise<{ judging: Judging; token: string | null }> {
  const { studyId, panelId, card } = await panelAt(app, link);
  const token = cookieOf(headers, judgeCookie(link));
  // Counted before anything is locked, and only who is new: a cookie that names no judge is none.
  if (!(await judgeBy({ db: app.db, studyId }, panelId, token, card))) {
    await checkBeginnings(app, address);
  }
  return atPanel(app, link, headers, async (write, held, known, isClosed) => {
    const see = async (judge: PanelJudge | null) =>
      stateOf(write, held, judge, isClosed, link, null);
    if (isClosed) return { judging: await see(known), token: null };
    if (known) {
      await setJudgeEnded(write, known.judge_id, false);
      return { judging: await see({ ...known, ended_at: null }), token: null };
    }
    const fresh = newToken();
    if (!card) await checkRoomOf(write, held, address);
    const judge = await sitDown(write, held, said, fresh, address);
    if (card) await setCardJudge(write, link, judge.judge_id);
    return { judging: await see(judge), token: fresh };
  });
}

const isHere = (address: string): boolean => /^(?:::ffff:)?127\.|^::1$/.test(address);

/** The open link lets so many in from one address, and none where judges have cards. @throws RequestError */
async function checkRoomOf(write: Write, held: Held, address: string): Promise<void> {
  const { panel_id } = held.panel;
  const run = await findPanelRun(write, panel_id);
  if (run?.is_open === false) {
    throw new RequestError(403, 'This panel is judged by card: use the link on your own card.');
  }
  // Judges who take turns at this computer have one address between them.
  if (isHere(address) || !run) return;
  if ((await countFromAddress(write, panel_id, address)) < run.per_address) return;
  throw new RequestError(
    429,
    `From your network address ${run.per_address} judges have begun, and no more are let in. ` +
      'Ask the organiser for a card, or to raise this limit.',
  );
}

/** Gives somebody a place. @throws RequestError where there is none */
async function sitDown(
  write: Write,
  held: Held,
  { initials, place }: z.infer<typeof beginSchema>,
  token: string,
  address: string,
): Promise<PanelJudge> {
  const { panel_id, shown_as, names } = held.setup;
  const judges = await listPanelJudges(write, panel_id);
  if (names === 'initials' && initials === undefined) {
    throw new RequestError(422, 'Say your initials: this panel keeps who judged.');
  }
  if (names === 'initials' && /^J\d+$/.test(initials ?? '')) {
    throw new RequestError(
      422,
      'J and a number is what judges without initials are called: say others.',
    );
  }
  let own: PanelJudge | undefined;
  if (shown_as === 'parts') {
    own = judges.find((one) => one.number === place);
    if (!own)
      throw new RequestError(
        422,
        'Say at which place you sit: its number is on the sheet before you.',
      );
    if (own.begun_at !== null) {
      throw new RequestError(409, `Somebody sits at place ${place} already: take a free one.`);
    }
  } else {
    if (isFull(judges, held.setup.judges)) throw new RequestError(409, FULL);
    const run = await findPanelRun(write, panel_id);
    const plan = await planOf(write, held, run?.seed ?? 1);
    await addPlaces(write, panel_id, plan, judges.length + 1);
    own = (await listPanelJudges(write, panel_id)).at(-1);
  }
  if (!own) throw new Error('there is no place');
  const taken = new Set(judges.filter((one) => one.number !== own.number).map((one) => one.name));
  const name = names === 'initials' ? freeName(initials ?? '', taken) : own.name;
  await beginJudge(write, own.judge_id, name, hashOf(token), address);
  return { ...own, name, begun_at: new Date().toISOString() };
}

const FULL = 'This panel already has all the judges it needs. Thank you all the same.';

/** Whether those who are at it and those who have been are as many as are wanted. */
const isFull = (judges: readonly PanelJudge[], wanted: number): boolean =>
  judges.filter((one) => one.answered_at !== null || (one.begun_at !== null && !isStale(one)))
    .length >= wanted;

/** Somebody who began, answered nothing and has gone takes nobody's place. */
const isStale = (judge: PanelJudge): boolean =>
  judge.answered_at === null &&
  (hasEnded(judge) || Date.now() - Date.parse(judge.begun_at ?? '') > 15 * 60 * 1000);

/** Two of the same initials are told apart by a number. */
function freeName(initials: string, taken: ReadonlySet<string>): string {
  for (let number = 2, name = initials; ; number += 1) {
    if (!taken.has(name)) return name;
    name = `${initials} ${number}`;
  }
}

/** Keeps an answer. Sent again it is the same one; another one takes its place as long as the panel is open. */
export const answerQuestion = (
  app: App,
  link: string,
  headers: Headers,
  { question: number, answer }: z.infer<typeof answerSchema>,
): Promise<Judging> =>
  atPanel(app, link, headers, async (write, held, judge, isClosed) => {
    if (!judge)
      throw new RequestError(401, 'Begin first: this browser does not judge in this panel.');
    const question = (await askedOf(write, held, judge))[number - 1];
    if (!question) throw new RequestError(404, 'There is no such question: read the panel again.');
    if (question.asked_at === null) {
      throw new RequestError(
        409,
        'This question has not been shown to you yet: read the panel again.',
      );
    }
    const at = question.codes.indexOf(answer);
    const isTie = answer === NO_DIFFERENCE && held.panel.kind === 'paired';
    const choice = isTie ? 'tie' : PLACES[at];
    if (choice === undefined) {
      throw new RequestError(422, 'This is not among the answers to this question: read it again.');
    }
    if (isClosed) {
      if (question.choice === choice) return stateOf(write, held, judge, true, link, null);
      throw new RequestError(409, 'The panel is closed. Your earlier answers count. Thank you.');
    }
    await keepChoice(write, judge.judge_id, question.place, choice);
    const left = (await askedOf(write, held, judge)).some((one) => one.choice === null);
    await setJudgeEnded(write, judge.judge_id, !left);
    const after = {
      ...judge,
      answered_at: new Date().toISOString(),
      ended_at: left ? null : new Date().toISOString(),
    };
    const isDone = !left && (await closeIfDue(write, await findHeld(write, held.panel.panel_id)));
    return stateOf(write, held, after, isDone, link, null);
  });

/** A judge stops: what was said counts. */
export const stopJudging = (app: App, link: string, headers: Headers): Promise<Judging> =>
  atPanel(app, link, headers, async (write, held, judge, isClosed) => {
    if (!judge) throw new RequestError(401, 'This browser does not judge in this panel.');
    await setJudgeEnded(write, judge.judge_id, true);
    const ended = { ...judge, ended_at: new Date().toISOString() };
    const closed = isClosed || (await closeIfDue(write, held));
    return stateOf(write, held, ended, closed, link, null);
  });

/** The questions that a judge is asked: those of specimens that were taken out are passed over. */
async function askedOf(write: Write, held: Held, judge: PanelJudge): Promise<AskedQuestion[]> {
  const out = new Set(
    (await listPanelItems(write, held.panel.panel_id))
      .filter((one) => one.taken_out_at !== null)
      .map((one) => one.specimen_id),
  );
  return (await questionsOfJudge(write.db, judge.judge_id)).filter(
    ({ items }) => !items.some((item) => out.has(item)),
  );
}

async function stateOf(
  write: Write,
  held: Held,
  judge: PanelJudge | null,
  isClosed: boolean,
  link: string,
  asked: number | null,
): Promise<Judging> {
  const { panel, setup } = held;
  const about = {
    aspect: panel.aspect,
    kind: panel.kind,
    shown_as: setup.shown_as,
    wants_initials: setup.names === 'initials',
    name: judge?.name ?? null,
  };
  const bare = { ...about, free_places: [], question: null };
  if (isClosed) return { ...bare, state: 'closed' };
  if (!judge) {
    const run = await findPanelRun(write, panel.panel_id);
    if (run?.is_open === false && run.link === link) return { ...bare, state: 'by card' };
    const judges = await listPanelJudges(write, panel.panel_id);
    const free = judges.filter((one) => one.begun_at === null).map((one) => one.number);
    const hasRoom = setup.shown_as === 'parts' ? free.length > 0 : !isFull(judges, setup.judges);
    if (!hasRoom) return { ...bare, state: 'full' };
    return { ...bare, state: 'new', free_places: setup.shown_as === 'parts' ? free : [] };
  }
  const questions = await askedOf(write, held, judge);
  const next = questions.findIndex((one) => one.choice === null);
  const last = next < 0 ? questions.length : next + 1;
  const number = asked === null ? last : Math.min(asked, last);
  const question = questions[number - 1];
  if (asked === null && next < 0) return { ...bare, state: 'done' };
  if (asked === null && judge.ended_at !== null) return { ...bare, state: 'stopped' };
  if (!question) return { ...bare, state: 'done' };
  await noteAsked(write, judge.judge_id, question.place);
  const { choice, codes } = question;
  return {
    ...about,
    free_places: [],
    state: 'asking',
    question: {
      number,
      of: questions.length,
      codes,
      pictures:
        setup.shown_as === 'photos'
          ? question.pictures.map((id) => `/api/v1/judging/${link}/pictures/${id}`)
          : [],
      picture_shape: shapeOf(held),
      answer:
        choice === null
          ? null
          : choice === 'tie'
            ? NO_DIFFERENCE
            : (codes[Number(choice) - 1] ?? null),
    },
  };
}

/** Width over height of the place that a panel of photos shows; null where parts are shown. */
function shapeOf(held: Held): number | null {
  const box = held.setup.shown_as === 'photos' ? placeOf(held) : null;
  return box && box.w / box.h;
}

/** A picture of a question of the judge who asks: as many bytes as any other of its panel. */
export async function pictureFor(
  app: App,
  link: string,
  headers: Headers,
  picture: string,
): Promise<Uint8Array> {
  const { studyId, panelId, card } = await panelAt(app, link);
  const { db } = app;
  const of = { db, studyId };
  const token = cookieOf(headers, judgeCookie(link));
  const judge = await judgeBy(of, panelId, token, card);
  const found = judge && (await findPanelPicture(of, panelId, judge.judge_id, picture));
  if (!found) throw new RequestError(404, 'There is no such picture.');
  const parts: Uint8Array[] = [];
  for await (const chunk of buffersOf(readFile(db, found.sha256))) parts.push(chunk);
  return paddedJpeg(Buffer.concat(parts), found.picture_bytes);
}
