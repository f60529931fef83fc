import { standingOf, type Standing, type StudyChange } from '../../data';
import { presentWorker } from '../http/actor';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { Unheard } from './unheard';

/** A stream that nothing is said on says so itself: proxies end what is silent for a minute. */
const BEAT_MS = 20_000;
/** A stream ends after so long and is opened again: whoever may not see it any more stays out then. */
const LONGEST_MS = 10 * 60_000;
const MOST_STREAMS = 1000;
const MOST_OF_ONE = 40;

const open = new Map<string, number>();

/** How a study stands. @throws RequestError 404 */
export async function standing(app: App, studyId: string): Promise<Standing> {
  const found = await standingOf(app.db, studyId);
  if (found === null) throw new RequestError(404, `There is no study ${studyId.slice(0, 80)}.`);
  return found;
}

/**
 * What becomes of a study, as server-sent events: `revision` at first and after a gap, with the revision at
 * which each part was last touched; `change` with the revision, the parts that are another and the
 * page that made it, for each later commit.
 *
 * @throws RequestError 429 where somebody has too many of them open
 */
export async function liveStream(
  app: App,
  studyId: string,
  signal: AbortSignal,
): Promise<Response> {
  const { db, broadcaster } = app;
  const worker = presentWorker()?.id ?? 'house';
  await standing(app, studyId);
  // Asked and counted without a pause in between: of many who come at once no more are let in.
  if (broadcaster.size >= MOST_STREAMS || (open.get(worker) ?? 0) >= MOST_OF_ONE) {
    throw new RequestError(429, 'Too many pages listen at once: close some.');
  }
  let end = (): void => undefined;
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const encoder = new TextEncoder();
      let isOver = false;
      const say = (text: string) => {
        // Whoever does not take what is said is let go: they come again and are told how things stand.
        if ((controller.desiredSize ?? 0) < -64) return end();
        if (!isOver) controller.enqueue(encoder.encode(text));
      };
      const event = (name: string, data: object) =>
        say(`event: ${name}\ndata: ${JSON.stringify(data)}\n\n`);
      const unheard = new Unheard();
      const tell = (changes: readonly StudyChange[]) => {
        for (const { revision, parts, tab } of changes) event('change', { revision, parts, tab });
      };
      const stand = (present: Standing | null) => {
        if (present === null) return end();
        event('revision', present);
        tell(unheard.stand(present.revision));
      };
      const now = () => standingOf(db, studyId).then(stand, () => end());
      const leave = broadcaster.listen(studyId, (news) => {
        if (news === 'over') end();
        else if (news === 'gap' || news.is_gone) void now();
        else tell(unheard.take(news));
      });
      const beat = setInterval(() => say(': still here\n\n'), BEAT_MS).unref();
      const last = setTimeout(() => end(), LONGEST_MS).unref();
      open.set(worker, (open.get(worker) ?? 0) + 1);
      end = () => {
        if (isOver) return;
        isOver = true;
        leave();
        clearInterval(beat);
        clearTimeout(last);
        const left = (open.get(worker) ?? 1) - 1;
        if (left > 0) open.set(worker, left);
        else open.delete(worker);
        try {
          controller.close();
        } catch {
          // Whoever listened has gone.
        }
      };
      signal.addEventListener('abort', end, { once: true });
      say('retry: 2000\n\n');
      // What was committed since the listening began is in it.
      void now();
    },
    cancel: () => end(),
  });
  return new Response(body, {
    headers: {
      'content-type': 'text/event-stream',
      // Not packed on its way: it would be held back until there is enough of it.
      'cache-control': 'no-store, no-transform',
      'x-accel-buffering': 'no',
    },
  });
}
