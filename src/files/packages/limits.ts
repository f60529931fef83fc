/** Bounds that keep a hostile package from taking the machine with it. */
export const LIMITS = {
  /** Bytes of one table or of `datapackage.json`, unpacked. */
  tableBytes: 24 * 1024 ** 2,
  /** Bytes of all tables and the descriptor, unpacked. */
  tablesBytes: 64 * 1024 ** 2,
  /** Bytes of all files, unpacked. */
  totalBytes: 8 * 1024 ** 3,
  /** Files in a package. */
  files: 10_000,
  /** From this size on, an entry may unpack to at most `ratio` times its packed size. */
  ratioFromBytes: 4 * 1024 ** 2,
  ratio: 200,
} as const;

/** Whether a file is read whole into memory: tables and the descriptor. */
export const isReadWhole = (path: string): boolean => /\.(csv|json)$/i.test(path);

/** A number of bytes as people say it. */
export function formatBytes(bytes: number): string {
  if (bytes < 1024) return `${bytes} bytes`;
  const units = ['KiB', 'MiB', 'GiB', 'TiB'];
  const at = Math.min(units.length, Math.floor(Math.log2(bytes) / 10));
  return `${(bytes / 1024 ** at).toFixed(1)} ${units[at - 1]}`;
}
