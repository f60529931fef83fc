import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import type { Settings } from '../../core/model/study';
import { NoMotionError, ToolpathAnalysis } from '../../core/toolpath';

/** What the browser itself finds in a file before it is sent. */
export interface FirstLook {
  sha256: string;
  /** Null for a container, which the server opens. */
  time_s: number | null;
  filament_mm: number | null;
  layers: number | null;
  commanded_max: number | null;
  reached_max: number | null;
  /** What it states, by our names where we have them. */
  settings: Settings;
  /** Why it is no sliced file. */
  fault: string | null;
}

export type LookMessage = { share: number } | { look: FirstLook } | { failed: string };

const report = (message: LookMessage) => self.postMessage(message);

/** Web worker: reads a file from end to end, for its hash and for what it says. */
self.onmessage = (event: MessageEvent<File>) => {
  look(event.data).then(
    (found) => report({ look: found }),
    (error: unknown) => report({ failed: error instanceof Error ? error.message : 'unknown' }),
  );
};

async function look(file: File): Promise<FirstLook> {
  const hash = sha256.create();
  const analysis = new ToolpathAnalysis({ file: file.name });
  const head = new Uint8Array(await file.slice(0, 2).arrayBuffer());
  const isGzip = head[0] === 0x1f && head[1] === 0x8b;
  const isZip = head[0] === 0x50 && head[1] === 0x4b;
  let read = 0;
  let reported = 0;
  const counted = file.stream().pipeThrough(
    new TransformStream<Uint8Array<ArrayBuffer>, Uint8Array<ArrayBuffer>>({
      transform(chunk, controller) {
        hash.update(chunk);
        read += chunk.length;
        if (read - reported > file.size / 50) {
          reported = read;
          report({ share: read / file.size });
        }
        controller.enqueue(chunk);
      },
    }),
  );
  const text = isGzip ? counted.pipeThrough(new DecompressionStream('gzip')) : counted;
  for (const reader = text.getReader(); ;) {
    const { done, value } = await reader.read();
    if (done) break;
    if (!isZip) analysis.push(value);
  }
  const sha = bytesToHex(hash.digest());
  const unknown = {
    sha256: sha,
    time_s: null,
    filament_mm: null,
    layers: null,
    commanded_max: null,
    reached_max: null,
    fault: null,
    settings: {},
  };
  if (isZip) return unknown;
  try {
    const facts = analysis.end(file.size);
    return {
      ...unknown,
      time_s: facts.time_s,
      filament_mm: facts.filament_mm,
      layers: facts.layers,
      commanded_max: facts.speed.commanded_max,
      reached_max: facts.speed.reached_max,
      settings: facts.settings,
    };
  } catch (error) {
    if (error instanceof NoMotionError)
      return { ...unknown, fault: 'no line of it moves anything' };
    throw error;
  }
}
