import { unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { filesOfDrop } from './dropped-files';
import { packFiles } from './pack-files';

/** Files and folders as a browser hands them over when they are dropped: a folder a few at a time. */
interface Tree {
  [name: string]: string | Tree;
}

const entryOf = (name: string, what: string | Tree): object =>
  typeof what === 'string'
    ? { name, isFile: true, file: (take: (file: File) => void) => take(new File([what], name)) }
    : {
        name,
        isFile: false,
        isDirectory: true,
        createReader: () => {
          const left = Object.entries(what).map(([own, inner]) => entryOf(own, inner));
          return { readEntries: (take: (batch: object[]) => void) => take(left.splice(0, 2)) };
        },
      };

const dropOf = (tree: Tree) =>
  ({
    items: [
      ...Object.entries(tree).map(([name, what]) => ({
        webkitGetAsEntry: () => entryOf(name, what),
      })),
      // A piece of text, which is no file.
      { webkitGetAsEntry: () => null },
    ],
  }) as unknown as DataTransfer;

const TREE: Tree = {
  study: {
    'datapackage.json': '{}',
    'prints.csv': 'print_id',
    'machines.csv': 'machine_id',
    meshes: { deep: { 'a.stl': 'solid' } },
    empty: {},
  },
  'photo.jpg': 'x',
};

describe('what is dropped', () => {
  it('is every file of it, folders walked through to their ends, with their paths', async () => {
    const found = await filesOfDrop(dropOf(TREE));
    expect(found.map(({ path }) => path)).toEqual([
      'study/datapackage.json',
      'study/prints.csv',
      'study/machines.csv',
      'study/meshes/deep/a.stl',
      'photo.jpg',
    ]);
    expect(await found[3]?.file.text()).toBe('solid');
  });

  it('is a failure where a file cannot be read any more', async () => {
    const gone = {
      name: 'a',
      isFile: true,
      file: (_: unknown, fail: (error: Error) => void) => fail(new Error('it is gone')),
    };
    const drop = { items: [{ webkitGetAsEntry: () => gone }] } as unknown as DataTransfer;
    await expect(filesOfDrop(drop)).rejects.toThrow('it is gone');
  });

  it('goes into one zip, each file at its path', async () => {
    const zip = await packFiles(await filesOfDrop(dropOf(TREE)));
    const files = unzipSync(new Uint8Array(await zip.arrayBuffer()));
    expect(Object.keys(files)).toHaveLength(5);
    expect(new TextDecoder().decode(files['study/meshes/deep/a.stl'])).toBe('solid');
  });
});
