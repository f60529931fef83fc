import type { NamedFile } from './pack-files';

/** All files of what was dropped, folders walked through, with their paths. */
export async function filesOfDrop(transfer: DataTransfer): Promise<NamedFile[]> {
  const entries = [...transfer.items].flatMap((item) => item.webkitGetAsEntry() ?? []);
  const found: NamedFile[] = [];
  for (const entry of entries) await walk(entry, '', found);
  return found;
}

async function walk(entry: FileSystemEntry, folder: string, found: NamedFile[]): Promise<void> {
  const path = folder + entry.name;
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) => {
      (entry as FileSystemFileEntry).file(resolve, reject);
    });
    found.push({ path, file });
    return;
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  for (;;) {
    const batch = await new Promise<FileSystemEntry[]>((resolve, reject) => {
      reader.readEntries(resolve, reject);
    });
    if (batch.length === 0) return;
    for (const child of batch) await walk(child, `${path}/`, found);
  }
}
