/** Something that carries the messages of the bench: a broker of its own, or one outside. */
export interface Link {
  /** Where machines speak to it. */
  address: string;
  stop(): Promise<void>;
}
