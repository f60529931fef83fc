import { listenToStudies, type LastingConnection, type StudyChange } from '../../data';

/** Hears of a change, of a gap in which some may have been missed, and that there will be no more. */
export type Listener = (news: StudyChange | 'gap' | 'over') => void;

/**
 * Who in this process wants to hear of which study. The connection that listens is there from the first of
 * them on.
 */
export class Broadcaster {
  readonly #databaseUrl: string;
  readonly #listeners = new Map<string, Set<Listener>>();
  #news: LastingConnection | null = null;

  constructor(databaseUrl: string) {
    this.#databaseUrl = databaseUrl;
  }

  /** How many listen. */
  get size(): number {
    return [...this.#listeners.values()].reduce((sum, own) => sum + own.size, 0);
  }

  /** Tells of each change of a study from now on; what is returned ends it. */
  listen(studyId: string, listener: Listener): () => void {
    const own = this.#listeners.get(studyId) ?? new Set();
    this.#listeners.set(studyId, own.add(listener));
    this.#news ??= listenToStudies(
      this.#databaseUrl,
      (change) => this.#tell(change.study_id, change),
      () => this.#tellAll('gap'),
    );
    return () => {
      own.delete(listener);
      if (own.size === 0 && this.#listeners.get(studyId) === own) this.#listeners.delete(studyId);
    };
  }

  #tell(studyId: string, news: StudyChange | 'gap' | 'over'): void {
    for (const listener of this.#listeners.get(studyId) ?? []) listener(news);
  }

  #tellAll(news: 'gap' | 'over'): void {
    for (const study of this.#listeners.keys()) this.#tell(study, news);
  }

  /** Lets everybody go, so that a process that ends waits for nobody who only listens. */
  sendHome(): void {
    this.#tellAll('over');
  }

  async end(): Promise<void> {
    await this.#news?.end();
  }
}
