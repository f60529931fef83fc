import type { NamedFile } from './pack-files';

/** All files of what was dropped, folders walked through, with their paths. */
export async function filesOfDrop(transfer: DataTransfer): Promise<NamedFile[]> {
  const entries = [...transfer.items].flatMap((item) => item.webkitGetAsEntry() ?? []);
  const found: NamedFile[] = [];
  for (const entry of entries) await walk(entry, '', found);
  return found;
}

const isFile = (entry: FileSystemEntry): entry is FileSystemFileEntry => entry.isFile;
const isFolder = (entry: FileSystemEntry): entry is FileSystemDirectoryEntry => entry.isDirectory;

async function walk(entry: FileSystemEntry, folder: string, found: NamedFile[]): Promise<void> {
  const path = folder + entry.name;
  if (isFile(entry)) {
    const file = await new Promise<File>((resolve, reject) => {
      entry.file(resolve, reject);
    });
    found.push({ path, file });
    return;
  }
  if (!isFolder(entry)) return;
  const reader = entry.createReader();
  for (;;) {
    const batch = await new Promise<FileSystemEntry[]>((resolve, reject) => {
      reader.readEntries(resolve, reject);
    });
    if (batch.length === 0) return;
    for (const child of batch) await walk(child, `${path}/`, found);
  }
}
