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

/** Collects faults and warnings, and puts them in order at the end. */
export class FaultList {
  readonly #faults: (Fault & { position: number })[] = [];
  readonly #warnings: (Fault & { position: number })[] = [];
  readonly #headers = new Map<string, readonly string[]>();

  /** Says in which order a file has its columns. */
  setHeader(file: string, header: readonly string[]): void {
    this.#headers.set(file, header);
  }

  add(file: string, line: number, column: string, message: string): void {
    this.#faults.push(this.#place({ file, line, column, message }));
  }

  warn(file: string, line: number, column: string, message: string): void {
    this.#warnings.push(this.#place({ file, line, column, message }));
  }

  get isEmpty(): boolean {
    return this.#faults.length === 0;
  }

  report(): FaultReport {
    return {
      faults: inOrder(this.#faults).slice(0, FAULT_LIMIT),
      faultCount: this.#faults.length,
      warnings: inOrder(this.#warnings).slice(0, FAULT_LIMIT),
    };
  }

  #place(fault: Fault): Fault & { position: number } {
    const at = this.#headers.get(fault.file)?.indexOf(fault.column) ?? -1;
    return { ...fault, position: at < 0 ? Number.MAX_SAFE_INTEGER : at };
  }
}

function inOrder(faults: (Fault & { position: number })[]): Fault[] {
  const compareText = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
  return faults
    .sort((a, b) => compareText(a.file, b.file) || a.line - b.line || a.position - b.position)
    .map(({ file, line, column, message }) => ({ file, line, column, message }));
}
