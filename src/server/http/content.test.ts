import { buffersOf } from '../../files/buffers';
import { Readable } from 'node:stream';
import { describe, expect, it } from 'vitest';
import { streamOf } from './content';

const SILENCE_MS = 60;
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** A request whose content comes as a generator gives it. */
const sending = (parts: () => AsyncGenerator<Uint8Array>): Request =>
  new Request('http://localhost/x', {
    method: 'PUT',
    duplex: 'half',
    body: Readable.toWeb(Readable.from(parts())),
  } as RequestInit);

const readAll = async (stream: Readable): Promise<number> => {
  let bytes = 0;
  for await (const part of buffersOf(stream)) bytes += part.length;
  return bytes;
};

describe('content that is sent in pieces', () => {
  it('is refused where nothing comes any more, and says so', async () => {
    const request = sending(async function* () {
      yield new Uint8Array(10);
      await pause(20 * SILENCE_MS);
      yield new Uint8Array(10);
    });
    await expect(readAll(streamOf(request, SILENCE_MS))).rejects.toMatchObject({
      status: 400,
      message: 'Nothing came for a minute: the transfer was ended. Send it again.',
    });
  });

  it('may take long, as long as something comes', async () => {
    const request = sending(async function* () {
      for (let sent = 0; sent < 8; sent += 1) {
        yield new Uint8Array(10);
        await pause(SILENCE_MS / 3);
      }
    });
    expect(await readAll(streamOf(request, SILENCE_MS))).toBe(80);
  });

  it('waits for a slow reader: that is no silence', async () => {
    const all = 40;
    const request = sending(async function* () {
      for (let sent = 0; sent < all; sent += 1) {
        yield await Promise.resolve(new Uint8Array(64 * 1024));
      }
    });
    const stream = streamOf(request, SILENCE_MS);
    await pause(5 * SILENCE_MS);
    expect(await readAll(stream)).toBe(all * 64 * 1024);
  });
});
