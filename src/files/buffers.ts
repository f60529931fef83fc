/** A chunk of a stream as bytes. @throws TypeError for what no stream of bytes gives */
function asBuffer(chunk: unknown): Buffer {
  if (Buffer.isBuffer(chunk)) return chunk;
  if (chunk instanceof Uint8Array) {
    return Buffer.from(chunk.buffer, chunk.byteOffset, chunk.byteLength);
  }
  if (typeof chunk === 'string') return Buffer.from(chunk);
  throw new TypeError('a stream of bytes gave something else');
}

/** The chunks of a stream of bytes, whose type a stream itself does not say. */
export async function* buffersOf(stream: AsyncIterable<unknown>): AsyncGenerator<Buffer, void> {
  for await (const chunk of stream) yield asBuffer(chunk);
}

/** All bytes of a stream at once. */
export async function bufferOf(stream: AsyncIterable<unknown>): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of buffersOf(stream)) parts.push(part);
  return Buffer.concat(parts);
}
