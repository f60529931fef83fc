import { PassThrough, Readable } from 'node:stream';
import { finished } from 'node:stream/promises';
import { ZipFile } from 'yazl';

/** A file on its way into a zip. */
export interface Part {
  path: string;
  /** Whether packing makes it smaller. */
  isPacked: boolean;
  content: AsyncIterable<Uint8Array>;
}

/**
 * Packs parts one after another; what is packed leaves before more is taken in. It is packed on the threads
 * of Node.js, so that whoever does it can do other things. What goes wrong breaks off the zip.
 */
export function zipParts(parts: AsyncIterable<Part>): Readable {
  const zip = new ZipFile();
  const out = new PassThrough();
  zip.outputStream.pipe(out);
  const breakOff = (error: unknown) =>
    out.destroy(error instanceof Error ? error : new Error(String(error)));
  zip.on('error', breakOff);
  const add = async () => {
    for await (const { path, isPacked, content } of parts) {
      const stream = Readable.from(content, { objectMode: false });
      zip.addReadStream(stream, path, { compress: isPacked });
      await finished(stream, { writable: false });
    }
    zip.end();
  };
  add().catch(breakOff);
  return out;
}

/** Whether a file of that name becomes smaller by packing. */
export const isPackable = (path: string): boolean =>
  /\.(?:css|csv|gcode|gco|g|html|js|json|md|nc|obj|stl|svg|txt)$/i.test(path);
