import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';

/** A file on its way into a zip. */
export interface Part {
  path: string;
  /** Whether packing makes it smaller. */
  isPacked: boolean;
  content: AsyncIterable<Uint8Array>;
}

/** Packs parts one after another; what is packed leaves before more is taken in. */
export async function* zipParts(parts: AsyncIterable<Part>): AsyncGenerator<Uint8Array> {
  let ready: Uint8Array[] = [];
  let failure: Error | null = null;
  const zip = new Zip((error, data) => {
    if (error) failure = error;
    else ready.push(data);
  });
  const drain = (): Uint8Array[] => {
    if (failure) throw failure;
    const taken = ready;
    ready = [];
    return taken;
  };
  for await (const part of parts) {
    const entry = part.isPacked
      ? new ZipDeflate(part.path, { level: 6 })
      : new ZipPassThrough(part.path);
    zip.add(entry);
    for await (const chunk of part.content) {
      entry.push(new Uint8Array(chunk));
      yield* drain();
    }
    entry.push(new Uint8Array(0), true);
    yield* drain();
  }
  zip.end();
  yield* drain();
}

/** Whether a file of that name becomes smaller by packing. */
export const isPackable = (path: string): boolean =>
  /\.(?:css|csv|gcode|gco|g|html|js|json|md|nc|obj|stl|svg|txt)$/i.test(path);
