/** Lets so many pieces of work run at a time; the others wait for their turn, the first come first. */
export class Turns {
  readonly #limit: number;
  readonly #waiting: (() => void)[] = [];
  #running = 0;

  constructor(limit: number) {
    this.#limit = limit;
  }

  /** Runs some work when its turn has come. */
  async take<Result>(work: () => Promise<Result>): Promise<Result> {
    if (this.#running >= this.#limit) {
      await new Promise<void>((resolve) => this.#waiting.push(resolve));
    } else this.#running += 1;
    try {
      return await work();
    } finally {
      const next = this.#waiting.shift();
      // The next one takes this one's place: the number that runs stays as it is.
      if (next) next();
      else this.#running -= 1;
    }
  }
}
