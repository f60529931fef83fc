import { pipeline } from 'node:stream/promises';
import { createDeflateRaw } from 'node:zlib';
import { Zip, ZipPassThrough } from 'fflate';

/** A file on its way into a zip. */
export interface Part {
  path: string;
  /** Whether packing makes it smaller. */
  isPacked: boolean;
  content: AsyncIterable<Uint8Array>;
}

const NOTHING = new Uint8Array(0);

/** A file that is packed elsewhere: what goes in is counted, and what comes out is given to it. */
class PackedEntry extends ZipPassThrough {
  override compression = 8;

  protected override process(_: Uint8Array, isLast: boolean): void {
    if (isLast) this.give(NOTHING, true);
  }

  give(packed: Uint8Array<ArrayBuffer>, isLast = false): void {
    this.ondata(null, packed, isLast);
  }
}

/**
 * Packs parts one after another; what is packed leaves before more is taken in. It is packed on the threads
 * of Node.js, so that whoever does it can do other things.
 */
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
  for await (const { path, isPacked, content } of parts) {
    const entry = isPacked ? new PackedEntry(path) : new ZipPassThrough(path);
    zip.add(entry);
    const counted = async function* () {
      for await (const chunk of content) {
        entry.push(new Uint8Array(chunk));
        yield chunk;
      }
    };
    if (entry instanceof PackedEntry) {
      const deflate = createDeflateRaw({ level: 6 });
      const packing = pipeline(counted(), deflate);
      // What goes wrong is told by what is read.
      packing.catch(() => undefined);
      for await (const packed of deflate) {
        entry.give(new Uint8Array(packed as Buffer));
        yield* drain();
      }
    } else {
      for await (const _ of counted()) yield* drain();
    }
    entry.push(NOTHING, true);
    yield* drain();
  }
  zip.end();
  yield* drain();
}

/** Whether a file of that name becomes smaller by packing. */
export const isPackable = (path: string): boolean =>
  /\.(?:css|csv|gcode|gco|g|html|js|json|md|nc|obj|stl|svg|txt)$/i.test(path);
