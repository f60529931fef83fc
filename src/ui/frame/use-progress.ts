import { useSyncExternalStore } from 'react';
import type { StudyProgress } from '../../contract/studies';
import { callApi, WRITTEN_EVENT } from '../kit/request';
import { useStudyNews } from '../lib/live';

/** Changes within so long are counted together: somebody who measures saves a reading a second. */
const GATHER_MS = 800;

/** How far one study has come, for all parts of a page that show it. */
class ProgressStore {
  #now: StudyProgress;
  readonly #hearers = new Set<() => void>();
  #timer: ReturnType<typeof setTimeout> | undefined;
  #isAsking = false;

  constructor(
    private readonly studyId: string,
    first: StudyProgress,
  ) {
    this.#now = first;
  }

  readonly read = (): StudyProgress => this.#now;

  readonly subscribe = (hear: () => void): (() => void) => {
    if (this.#hearers.size === 0) window.addEventListener(WRITTEN_EVENT, this.countAgain);
    this.#hearers.add(hear);
    return () => {
      this.#hearers.delete(hear);
      if (this.#hearers.size > 0) return;
      window.removeEventListener(WRITTEN_EVENT, this.countAgain);
      clearTimeout(this.#timer);
      stores.delete(this.studyId);
    };
  };

  /** Asks the server in a moment. While an answer is on its way, it is asked once more after it. */
  readonly countAgain = (): void => {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#ask(), GATHER_MS);
  };

  async #ask(): Promise<void> {
    if (this.#isAsking) return this.countAgain();
    this.#isAsking = true;
    try {
      this.#now = await callApi<StudyProgress>('GET', `/studies/${this.studyId}/progress`);
      for (const hear of this.#hearers) hear();
    } catch {
      // The counts stay as they were until the next change.
    } finally {
      this.#isAsking = false;
    }
  }
}

const stores = new Map<string, ProgressStore>();

function storeOf(studyId: string, first: StudyProgress): ProgressStore {
  const known = stores.get(studyId);
  if (known) return known;
  const store = new ProgressStore(studyId, first);
  stores.set(studyId, store);
  return store;
}

/** How far a study has come. It follows what is changed on this page and on others. */
export function useProgress(studyId: string, first: StudyProgress): StudyProgress {
  // On the server each page is another reader's: nothing is shared between them.
  const store =
    typeof window === 'undefined' ? new ProgressStore(studyId, first) : storeOf(studyId, first);
  useStudyNews(studyId, store.countAgain);
  return useSyncExternalStore(store.subscribe, store.read, () => first);
}
