import { beforeAll, expect, it } from 'vitest';
import { createFleet } from '../support/fleet';
import { sharedServed } from '../support/served';

const { call, url } = sharedServed();

let base: string;
beforeAll(async () => {
  base = `/studies/${await createFleet(url(), 1)}`;
  const print = (print_id: string, repeat: number) =>
    call('POST', `${base}/rows/prints`, {
      print_id,
      contender_id: 'c-1',
      artefact_id: 'clip',
      material_id: 'pla',
      repeat,
      order: repeat,
      outcome: 'success',
    });
  await print('K7-002', 1);
  await print('P-2', 2);
  const specimen = (specimen_id: string, code: string | null) =>
    call('POST', `${base}/rows/specimens`, { specimen_id, print_id: 'P-2', copy: null, code });
  // A sticker that says what a print is called, and a specimen whose id is another's sticker.
  await specimen('S-1', 'K7-002');
  await specimen('S-2', null);
});

const find = async (code: string) => {
  const { status, content } = await call('GET', `${base}/find?code=${encodeURIComponent(code)}`);
  return status === 200 ? [content.kind, String(content.href).split(/[?]/)[1]] : status;
};

it.each([
  ['a sticker before a print of that name', 'K7-002', ['specimen', 'specimen=S-1']],
  ['case does not matter', 'k7-002', ['specimen', 'specimen=S-1']],
  ['a specimen by its id', 's-2', ['specimen', 'specimen=S-2']],
  ['a print by its id', 'P-2', ['print', 'open=P-2']],
  ['a place of the plan', 'C-1/clip/2', ['place', 'open=c-1%2Fclip%2F2']],
])('%s', async (_, code, found) => {
  expect(await find(code)).toEqual(found);
});

it.each([['c-1/clip/3'], ['c-1/clip/0'], ['c-1/clip/1.5'], ['c-1/clip/'], ['K7-00'], ['']])(
  '“%s” is nothing here',
  async (code) => {
    expect(await find(code)).toBe(404);
  },
);
