/** Beyond this computer machines speak by TLS only, each by a key of its own. */
export interface OuterDoor {
  host: string;
  key: string | Buffer;
  cert: string | Buffer;
}

/** Something that carries the messages of the bench: a broker of its own, or one outside. */
export interface Link {
  /** Where machines speak to it. */
  address: string;
  /** Where machines elsewhere speak to it; null as long as they are not let in. */
  outerAddress: string | null;
  /** Whether this process hears them: of several on one outside broker, one does. */
  isListening(): boolean;
  /** Lets machines elsewhere in too; the port where. A broker outside has doors of its own. */
  openTo?(door: OuterDoor): Promise<number | null>;
  stop(): Promise<void>;
}
