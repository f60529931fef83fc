import { EventEmitter } from 'node:events';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { Duplex } from 'node:stream';
import { describe, expect, it, vi } from 'vitest';
import { kindOfPath, kindOfPicture, isHeic } from '../../files/photos/picture-kinds';
import { refuseEarly, refuseUnreadable } from './gate';
import { isLoopback, isOwnRequest } from '../network/origin';

/** What the gate answers to a request line; null where it lets it through. */
async function answerTo(method: string, url: string) {
  const headers = new Map<string, string>();
  let end: (text: string) => void = () => undefined;
  const text = new Promise<string>((resolve) => (end = resolve));
  const res = {
    statusCode: 0,
    setHeader: (name: string, value: string) => headers.set(name, value),
    end: (body: string) => end(body),
  };
  const refused = refuseEarly(
    Object.assign(new EventEmitter(), { method, url }) as unknown as IncomingMessage,
    res as unknown as ServerResponse,
  );
  if (!refused) return null;
  const { detail } = JSON.parse(await text) as { detail: string };
  return { status: res.statusCode, detail, headers };
}

describe('a request line', () => {
  it.each([
    ['GET', '/studies/01?x=%25zz'],
    ['POST', '/api/v1/studies'],
    ['DELETE', '/api/v1/a%20b'],
    ['GET', '/%C3%A9'],
  ])('%s %s goes on', async (method, url) => {
    expect(await answerTo(method, url)).toBeNull();
  });

  it.each([
    ['TRACE', '/', 405, 'is not done here'],
    ['CONNECT', '/', 405, 'is not done here'],
    ['GET', '/a%00b', 400, 'NUL'],
    ['GET', '/a?b=%00', 400, 'NUL'],
    ['GET', '/%252e%252e/etc', 400, 'encoded twice'],
    ['GET', '/a%zz', 400, 'does not begin a character'],
    ['GET', '/a%', 400, 'does not begin a character'],
    ['GET', `/${'a'.repeat(8000)}`, 400, 'too long'],
    ['GET', '/_image?href=http://example.org', 404, '/_image'],
  ])('%s %s is answered %i', async (method, url, status, words) => {
    const answer = await answerTo(method, url);
    expect(answer?.status).toBe(status);
    expect(answer?.detail).toContain(words);
    expect(answer?.headers.get('content-type')).toBe('application/problem+json');
    if (status === 405) expect(answer?.headers.get('allow')).toContain('GET');
  });

  it('that cannot be read at all is answered, unless nobody listens any more', () => {
    const socket = { writable: true, end: vi.fn<(text: string) => void>() };
    refuseUnreadable(new Error('parse'), socket as unknown as Duplex);
    const [head = '', body = ''] = (socket.end.mock.calls[0]?.[0] ?? '').split('\r\n\r\n');
    expect(head).toContain('400 Bad Request');
    expect(head).toContain(`content-length: ${Buffer.byteLength(body)}`);
    expect(JSON.parse(body)).toMatchObject({ status: 400 });
    const gone = { writable: false, end: vi.fn() };
    refuseUnreadable(new Error('parse'), gone as unknown as Duplex);
    expect(gone.end).not.toHaveBeenCalled();
  });
});

describe('whose request it is', () => {
  const isOwn = (method: string, headers: Record<string, string>) =>
    isOwnRequest(new Request('http://127.0.0.1:4680/', { method, headers }));

  it.each(['localhost', 'localhost:4680', '127.0.0.1', '127.1.2.3:80', '[::1]:4680'])(
    '%s is this machine',
    (host) => {
      expect(isLoopback(host)).toBe(true);
    },
  );

  it.each(['example.org', 'localhost.example.org', '10.0.0.1', '127.0.0.1.example.org', ''])(
    '“%s” is not',
    (host) => {
      expect(isLoopback(host)).toBe(false);
    },
  );

  const host = '127.0.0.1:4680';

  it.each([
    ['a program', {}, true],
    ['our own page', { 'sec-fetch-site': 'same-origin', origin: `http://${host}` }, true],
    ['an address that was typed', { 'sec-fetch-site': 'none' }, true],
    ['another site', { 'sec-fetch-site': 'cross-site' }, false],
    ['another port of this machine', { 'sec-fetch-site': 'same-site' }, false],
    ['a foreign origin', { origin: 'http://example.org' }, false],
    ['an origin of another port', { origin: 'http://127.0.0.1:9' }, false],
    ['an opaque origin', { origin: 'null' }, false],
  ])('a change by %s', (_, headers, expected) => {
    expect(isOwn('POST', { host, ...headers })).toBe(expected);
    // Reading needs no more than a name of this machine.
    expect(isOwn('GET', { host, ...headers })).toBe(true);
  });

  it('a name that another site points here is refused for reading too', () => {
    expect(isOwn('GET', { host: 'rebound.example.org' })).toBe(false);
    expect(isOwn('POST', { host: 'rebound.example.org' })).toBe(false);
  });
});

describe('what a picture is', () => {
  const of = (...bytes: (number | string)[]) =>
    Buffer.concat(
      bytes.map((one) => (typeof one === 'string' ? Buffer.from(one) : Buffer.from([one]))),
    );

  it('its first bytes say', () => {
    expect(kindOfPicture(of(0xff, 0xd8, 0xff, 0xe1, 'Exif and more of it'))?.type).toBe(
      'image/jpeg',
    );
    expect(kindOfPicture(of(0x89, 'PNG\r\n', 0x1a, '\n and more of it'))?.type).toBe('image/png');
    expect(kindOfPicture(of('RIFF', 1, 2, 3, 4, 'WEBPVP8 and more'))?.type).toBe('image/webp');
    expect(kindOfPicture(of('RIFF', 1, 2, 3, 4, 'WAVEfmt and more'))).toBeNull();
    expect(kindOfPicture(of('<svg xmlns="http://www.w3.org/2000/svg">'))).toBeNull();
    expect(kindOfPicture(of('GIF89a and more of it here'))).toBeNull();
    expect(kindOfPicture(of())).toBeNull();
  });

  it.each(['heic', 'heix', 'mif1'])('a phone’s own kind is told: %s', (brand) => {
    expect(isHeic(of(0, 0, 0, 24, `ftyp${brand}`, 'and more'))).toBe(true);
    expect(isHeic(of(0, 0, 0, 24, 'ftypmp42', 'and more'))).toBe(false);
  });

  it('its path says when it is shown', () => {
    expect(kindOfPath('photos/a.jpg')?.type).toBe('image/jpeg');
    expect(kindOfPath('photos/a.svg')).toBeNull();
    expect(kindOfPath('photos/a')).toBeNull();
  });
});
