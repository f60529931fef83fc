/** Something wrong with a package, and where. */
export interface Fault {
  /** Path inside the package. */
  file: string;
  /** Line of the file where the row begins; the header is line 1. */
  line: number;
  /** The column's name, or `-` where the fault is not in one cell. */
  column: string;
  message: string;
}

/** The most faults that are told one by one. */
export const FAULT_LIMIT = 200;

/** What a package's check found. */
export interface FaultReport {
  /** The first 200, by file, line and column. */
  faults: Fault[];
  /** How many there are in all. */
  faultCount: number;
  warnings: Fault[];
}

/** `file:line:column: message`, as the command line prints it. */
export const formatFault = (fault: Fault): string =>
  `${fault.file}:${fault.line}:${fault.column}: ${fault.message}`;

/** Faults of one kind, of which the first are kept and all are counted. */
class KeptFaults {
  #kept: (Fault & { position: number })[] = [];
  #count = 0;

  get count(): number {
    return this.#count;
  }

  add(fault: Fault & { position: number }): void {
    this.#count += 1;
    this.#kept.push(fault);
    // What stands beyond the first ones is never told: a package of nothing but faults stays small.
    if (this.#kept.length >= MOST_HELD) this.#kept = inOrder(this.#kept).slice(0, FAULT_LIMIT);
  }

  first(): Fault[] {
    return inOrder(this.#kept)
      .slice(0, FAULT_LIMIT)
      .map(({ file, line, column, message }) => ({ file, line, column, message }));
  }
}

const MOST_HELD = 20 * FAULT_LIMIT;

/** Collects faults and warnings, and puts them in order at the end. */
export class FaultList {
  readonly #faults = new KeptFaults();
  readonly #warnings = new KeptFaults();
  readonly #positions = new Map<string, ReadonlyMap<string, number>>();

  /** Says in which order a file has its columns. */
  setHeader(file: string, header: readonly string[]): void {
    const positions = new Map<string, number>();
    header.forEach((name, at) => {
      if (!positions.has(name)) positions.set(name, at);
    });
    this.#positions.set(file, positions);
  }

  add(file: string, line: number, column: string, message: string): void {
    this.#faults.add(this.#place({ file, line, column, message }));
  }

  warn(file: string, line: number, column: string, message: string): void {
    this.#warnings.add(this.#place({ file, line, column, message }));
  }

  get isEmpty(): boolean {
    return this.#faults.count === 0;
  }

  report(): FaultReport {
    return {
      faults: this.#faults.first(),
      faultCount: this.#faults.count,
      warnings: this.#warnings.first(),
    };
  }

  #place(fault: Fault): Fault & { position: number } {
    const position = this.#positions.get(fault.file)?.get(fault.column) ?? Number.MAX_SAFE_INTEGER;
    return { ...fault, position };
  }
}

/** By file, line and column; of one place in the order in which they were found. */
function inOrder<Placed extends Fault & { position: number }>(faults: readonly Placed[]): Placed[] {
  const compareText = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
  return [...faults].sort(
    (a, b) => compareText(a.file, b.file) || a.line - b.line || a.position - b.position,
  );
}
