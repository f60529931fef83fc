import { readStudy } from './read-study';

/** `vergleich validate`: quiet where the package is valid, else every fault. */
export async function runValidate(path: string, { all = false }: { all?: boolean }): Promise<void> {
  await readStudy(path, 'whole', all);
}
