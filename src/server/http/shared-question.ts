/**
 * A question whose answer is shared by all who ask before it is put: it is put once at a time, and
 * nobody gets an answer to what was put before they asked.
 */
export class SharedQuestion<Answer> {
  readonly #put: () => Promise<Answer>;
  #before: Promise<unknown> = Promise.resolve();
  #next: Promise<Answer> | null = null;

  constructor(put: () => Promise<Answer>) {
    this.#put = put;
  }

  ask(): Promise<Answer> {
    this.#next ??= this.#before.then(() => {
      this.#next = null;
      const answer = this.#put();
      this.#before = answer.catch(() => undefined);
      return answer;
    });
    return this.#next;
  }
}
