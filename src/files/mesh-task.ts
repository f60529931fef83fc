import type { OrRefused } from '../core/model/faults';
import type { MeshSheet } from '../core/geometry/mesh';

/** A mesh file, as its bytes. */
export interface MeshFile {
  name: string;
  bytes: Uint8Array;
}

export type MeshTask = { sheet: MeshFile } | { same: readonly [MeshFile, MeshFile] };

/** What a mesh shows, whether two are the same, or why one cannot be read. */
export type MeshOutcome = OrRefused<{ sheet: MeshSheet } | { same: boolean }>;
