import { useEffect, useEffectEvent } from 'react';
import { TAB } from '../kit/request';

/** What became of a study: which parts are another now. */
export interface StudyNews {
  revision: string;
  parts: readonly string[];
}

/** How a study stands: its revision, and the one at which each part was last touched. */
interface Standing {
  revision: string;
  touched: Readonly<Record<string, number>>;
  /** The page that touched each part last. */
  touched_by: Readonly<Record<string, string>>;
}

type Hear = (news: StudyNews) => void;

/** Where no events come through, it is asked again and again. */
const ASK_EVERY_MS = 5000;

/** Changes that come within so long are told as one: who pastes sixty readings makes sixty. */
const GATHER_MS = 120;

/** One line to the server for all that a page wants to hear of a study. */
interface Line {
  hearers: Set<Hear>;
  close: () => void;
}

const lines = new Map<string, Line>();

function openLine(studyId: string): Line {
  const hearers = new Set<Hear>();
  const address = `/api/v1/studies/${studyId}`;
  let source: EventSource | null = null;
  let timer: ReturnType<typeof setInterval> | undefined;
  /** The newest revision that this page was told of. */
  let known =
    document.querySelector<HTMLElement>('[data-study-revision]')?.dataset.studyRevision ?? null;
  let gathered: StudyNews | null = null;
  const tell = (news: StudyNews) => {
    const isFirst = gathered === null;
    gathered = { revision: news.revision, parts: [...(gathered?.parts ?? []), ...news.parts] };
    if (!isFirst) return;
    setTimeout(() => {
      const told = gathered;
      gathered = null;
      for (const hear of hearers) if (told) hear(told);
    }, GATHER_MS);
  };
  /** How things stand: news only where it is not how they stood. */
  const stand = ({ revision, touched, touched_by }: Standing) => {
    const from = known;
    known = revision;
    if (from === null || from === revision) return;
    // What this tab did itself, on this page or the one before, is no news.
    const changed = Object.keys(touched).filter((part) => (touched[part] ?? 0) > Number(from));
    const parts = changed.filter((part) => touched_by[part] !== TAB);
    if (parts.length > 0 || changed.length === 0) tell({ revision, parts });
  };
  const ask = () => {
    fetch(`${address}/live`, { headers: { accept: 'application/json' } })
      .then((answer) => (answer.ok ? answer.json() : null))
      .then((answer: Standing | null) => answer && stand(answer))
      .catch(() => undefined);
  };
  const stop = () => {
    source?.close();
    source = null;
    clearInterval(timer);
    timer = undefined;
  };
  const start = () => {
    // A page that nobody sees holds no connection: a browser has six of them for one address.
    if (document.visibilityState === 'hidden' || source) return;
    if (typeof EventSource === 'undefined') {
      timer ??= setInterval(ask, ASK_EVERY_MS);
      return;
    }
    const own = new EventSource(`${address}/live`);
    source = own;
    own.addEventListener('open', () => {
      clearInterval(timer);
      timer = undefined;
    });
    own.addEventListener('revision', ({ data }: MessageEvent<string>) =>
      stand(JSON.parse(data) as Standing),
    );
    own.addEventListener('change', ({ data }: MessageEvent<string>) => {
      const { revision, parts, tab } = JSON.parse(data) as StudyNews & { tab: string | null };
      known = revision;
      if (tab !== TAB) tell({ revision, parts });
    });
    own.addEventListener('error', () => {
      // It is opened again by itself; where it is not let through, asking does.
      timer ??= setInterval(ask, ASK_EVERY_MS);
    });
  };
  const look = () => (document.visibilityState === 'hidden' ? stop() : start());
  document.addEventListener('visibilitychange', look);
  // What is put away to be come back to lets go of it too.
  window.addEventListener('pagehide', stop);
  window.addEventListener('pageshow', look);
  start();
  return {
    hearers,
    close: () => {
      stop();
      document.removeEventListener('visibilitychange', look);
      window.removeEventListener('pagehide', stop);
      window.removeEventListener('pageshow', look);
    },
  };
}

/** Hears of what others do to a study, and this browser's other pages, within a moment. */
export function useStudyNews(studyId: string, hear: Hear): void {
  const hearNow = useEffectEvent(hear);
  useEffect(() => {
    const line = lines.get(studyId) ?? openLine(studyId);
    lines.set(studyId, line);
    const own: Hear = (news) => hearNow(news);
    line.hearers.add(own);
    return () => {
      line.hearers.delete(own);
      if (line.hearers.size > 0) return;
      line.close();
      lines.delete(studyId);
    };
  }, [studyId]);
}

/** Whether one of these parts is another now. */
export const concerns = ({ parts }: StudyNews, ...wanted: readonly string[]): boolean =>
  parts.some((part) => wanted.includes(part));
