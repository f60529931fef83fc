import { randomBytes } from 'node:crypto';
import { strToU8 } from 'fflate';
import { v7 as uuid } from 'uuid';
import { describe, expect, it } from 'vitest';
import { createFleet } from '../support/fleet';
import { sharedServed } from '../support/served';

const { call, get, url } = sharedServed();

const bytes = (...head: number[]) => Uint8Array.from([...head, ...randomBytes(40)]);
const JPEG = () => bytes(0xff, 0xd8, 0xff, 0xe0);
const PNG = () => bytes(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a);
const WEBP = () => Uint8Array.from([...strToU8('RIFF'), 1, 0, 0, 0, ...strToU8('WEBPVP8 '), 0]);
const HEIC = () => Uint8Array.from([0, 0, 0, 24, ...strToU8('ftypheic'), ...randomBytes(16)]);

/** A study with two incidents, and where their photos are sent. */
async function incidents() {
  const study = await createFleet(url(), 1);
  const of = async () => {
    const incident_id = uuid();
    await call('POST', `/studies/${study}/rows/incidents`, {
      incident_id,
      machine_id: 'm-1',
      mode: 'tangled',
      cause: 'operator',
    });
    return `/studies/${study}/incidents/${incident_id}/photos`;
  };
  return { study, first: await of(), second: await of() };
}

const put = (base: string, content: Uint8Array) => call('PUT', base, content as BodyInit);

const shown = (base: string, path: string) =>
  fetch(`${url()}/api/v1${base}?path=${encodeURIComponent(path)}`);

describe('a picture', () => {
  it.each([
    ['JPEG', JPEG, 'image/jpeg'],
    ['PNG', PNG, 'image/png'],
    ['WebP', WEBP, 'image/webp'],
  ])('%s is told by its first bytes, and comes back as it was', async (_, make, type) => {
    const { first } = await incidents();
    const sent = make();
    const { status, content } = await put(first, sent);
    expect(status).toBe(201);
    const answer = await shown(first, String(content.path));
    expect(answer.headers.get('content-type')).toBe(type);
    expect(answer.headers.get('content-security-policy')).toContain("default-src 'none'");
    expect(answer.headers.get('x-content-type-options')).toBe('nosniff');
    expect(new Uint8Array(await answer.arrayBuffer())).toEqual(sent);
  });

  it.each([
    ['a script', strToU8('<svg onload=alert(1)>')],
    ['a PDF', strToU8('%PDF-1.7 and so on')],
    ['half a head', Uint8Array.from([0xff, 0xd8])],
    ['nothing at all', new Uint8Array(1)],
  ])('%s is none', async (_, sent) => {
    const { first } = await incidents();
    const answer = await put(first, sent);
    expect(answer.status).toBe(415);
    expect(answer.content.detail).toBe('A photo is a JPEG, PNG or WebP picture.');
  });

  it('of a phone’s own kind is refused with what to do', async () => {
    const { first } = await incidents();
    const answer = await put(first, HEIC());
    expect(answer.status).toBe(415);
    expect(answer.content.detail).toContain('send it as JPEG');
  });

  it('over 25 MB is refused', async () => {
    const { first } = await incidents();
    const large = new Uint8Array(25 * 1024 * 1024 + 1);
    large.set(JPEG());
    const answer = await put(first, large);
    expect(answer.status).toBe(413);
    expect(answer.content.detail).toBe('The photo is over 25 MB.');
  });

  it('sent twice is stored once, and of another incident once more', async () => {
    const { study, first, second } = await incidents();
    const sent = PNG();
    const [one, again, other] = [
      await put(first, sent),
      await put(first, sent),
      await put(second, sent),
    ];
    expect(again.content).toEqual({ path: one.content.path, isKnown: true });
    expect(other.content).toMatchObject({ isKnown: false });
    expect(other.content.path).not.toBe(one.content.path);
    const rows = await get<unknown[]>(`/studies/${study}/rows/incident_photos`);
    expect(rows).toHaveLength(2);
  });

  it('of nothing that is there is refused', async () => {
    const { study } = await incidents();
    const answer = await put(`/studies/${study}/incidents/${uuid()}/photos`, PNG());
    expect(answer.status).toBe(404);
  });

  it('is shown under its own incident only', async () => {
    const { first, second } = await incidents();
    const { content } = await put(first, PNG());
    expect((await shown(second, String(content.path))).status).toBe(404);
    expect((await shown(first, 'datapackage.json')).status).toBe(404);
    expect((await shown(first, '../../etc/passwd')).status).toBe(404);
  });
});
