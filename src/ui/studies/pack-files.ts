import { Zip, ZipPassThrough } from 'fflate';

/** A file with its path in the package. */
export interface NamedFile {
  path: string;
  file: File;
}

/** Puts files into one zip without packing them; the server checks and stores them. */
export async function packFiles(files: readonly NamedFile[]): Promise<Blob> {
  const parts: BlobPart[] = [];
  const zip = new Zip((error, data) => {
    if (error) throw error;
    parts.push(new Uint8Array(data));
  });
  for (const { path, file } of files) {
    const entry = new ZipPassThrough(path);
    zip.add(entry);
    const reader = file.stream().getReader();
    for (;;) {
      const { done, value } = await reader.read();
      if (done) break;
      entry.push(new Uint8Array(value));
    }
    entry.push(new Uint8Array(0), true);
  }
  zip.end();
  return new Blob(parts, { type: 'application/zip' });
}
