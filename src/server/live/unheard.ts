import type { StudyChange } from '../../data';

/**
 * The changes of a study that a stream has still to tell: those that are not yet in how the study stood
 * when that was told. Until it is told, they wait.
 */
export class Unheard {
  #stands: bigint | null = null;
  readonly #waiting: StudyChange[] = [];

  /** A change has come; gives those to be told now. */
  take(change: StudyChange): StudyChange[] {
    if (this.#stands === null) {
      this.#waiting.push(change);
      return [];
    }
    return BigInt(change.revision) > this.#stands ? [change] : [];
  }

  /** How the study stands is told; gives the changes that came meanwhile and are newer. */
  stand(revision: string): StudyChange[] {
    this.#stands = BigInt(revision);
    return this.#waiting.splice(0).flatMap((change) => this.take(change));
  }
}
