import { describe, expect, it } from 'vitest';
import { contenderMarks } from '../../../core/model/study';
import type { PhotosData, ShownPhoto } from '../../../contract/photos';
import { smallStudy } from '../../../../tests/support/small-study';
import { subjectsOf } from './subjects';

const { tables } = smallStudy({
  machines: [
    { machine_id: 'a', name: 'Auklet' },
    { machine_id: 'g', name: 'Gannet' },
  ],
  profiles: [{ profile_id: 's', name: 'As shipped', kind: 'stock' }],
  contenders: [
    { contender_id: 'A', label: 'A', machine_id: 'a', profile_id: 's' },
    { contender_id: 'G', label: 'G', machine_id: 'g', profile_id: 's' },
  ],
});
const marks = contenderMarks(tables.contenders, tables.machines, tables.profiles);

const specimens = [
  {
    specimen_id: 'A-1',
    code: 'K7-001',
    contender_id: 'A',
    artefact_id: 'spire',
    artefact: 'Spire',
  },
  { specimen_id: 'A-2', code: null, contender_id: 'A', artefact_id: 'spire', artefact: 'Spire' },
  { specimen_id: 'G-1', code: null, contender_id: 'G', artefact_id: 'spire', artefact: 'Spire' },
  { specimen_id: 'X-1', code: null, contender_id: 'gone', artefact_id: 'spire', artefact: 'Spire' },
] as PhotosData['specimens'];

const LAID = { laid: { photo_px_mm: 10 }, isRectified: true, state: 'done' };
const photo = (path: string, specimen_id: string | null, more: object = {}) =>
  ({
    path,
    ...LAID,
    filed: specimen_id && { path, specimen_id, view: 'front', light: 'flat', ...more },
  }) as unknown as ShownPhoto;

const seen = (photos: readonly ShownPhoto[], shown = marks) =>
  subjectsOf(photos, specimens, shown).map(({ key, photos: own }) => [
    key,
    own.map((one) => `${one.contender} ${one.code} ${one.photo.path}`),
  ]);

describe('what can stand side by side', () => {
  it('is the same view in the same light: the first of every contender, then the others', () => {
    const photos = [photo('a2', 'A-2'), photo('a1', 'A-1'), photo('g1', 'G-1')];
    expect(seen(photos)).toEqual([['spire/front/flat', ['A A-2 a2', 'G G-1 g1', 'A K7-001 a1']]]);
  });

  it('is told apart by view and light; raking light, which shows most, comes first', () => {
    const photos = [
      photo('1', 'A-1'),
      photo('2', 'G-1'),
      photo('3', 'A-1', { light: null }),
      photo('4', 'A-1', { light: 'raking-left' }),
      photo('5', 'A-1', { view: 'back' }),
    ];
    expect(seen(photos).map(([key]) => key)).toEqual([
      'spire/front/raking-left',
      'spire/front/flat',
      'spire/front/unknown',
      'spire/back/flat',
    ]);
  });

  it('is nothing that is not filed, has no view or is not laid flat, nor of who is not in the line-up', () => {
    const photos = [
      photo('1', null),
      photo('2', 'A-1', { view: null }),
      { ...photo('3', 'A-1'), isRectified: false },
      { ...photo('4', 'A-1'), laid: null },
      photo('5', 'nobody'),
      photo('6', 'X-1'),
    ];
    expect(seen(photos)).toEqual([]);
  });

  it('leaves a contender out that is hidden', () => {
    const photos = [photo('1', 'A-1'), photo('2', 'G-1')];
    expect(seen(photos, marks.slice(1))).toEqual([['spire/front/flat', ['G G-1 2']]]);
  });
});
