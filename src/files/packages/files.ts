import { WrongInputError } from '../../core/model/faults';
import type { Readable } from 'node:stream';
import type { PackageSource } from '../../core/model/package';

/** A package on disk, whose files can also be streamed. */
export interface PackageFiles extends PackageSource {
  stream(path: string): Promise<Readable>;
  /** Bytes of a file, unpacked. */
  sizeOf(path: string): number;
  close(): Promise<void>;
}

/** The package cannot be opened at all: not there, not a package. */
export class PackageError extends WrongInputError {
  override name = 'PackageError';
}
