import { refused } from '../core/model/faults';
import { MeshError, readMesh, sameVertices, sheetOf } from '../core/geometry/mesh';
import type { MeshOutcome, MeshTask } from '../files/mesh-task';

/** Worker thread: reads meshes and draws them. */
export default function run(task: MeshTask): MeshOutcome {
  try {
    if ('sheet' in task) return { sheet: sheetOf(task.sheet.bytes, task.sheet.name) };
    const [a, b] = task.same.map(({ bytes, name }) => readMesh(bytes, name).soup);
    return { same: a !== undefined && b !== undefined && sameVertices(a, b) };
  } catch (error) {
    if (error instanceof MeshError) return refused(error.message);
    throw error;
  }
}
