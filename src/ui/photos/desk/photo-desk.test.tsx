// @vitest-environment happy-dom
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import { eventStreams } from '../../../../tests/support/event-source';
import { toldApi } from '../../../../tests/support/told-api';
import { PhotoDesk } from './PhotoDesk';

eventStreams();
toldApi();
afterEach(cleanup);

const specimen = (specimen_id: string, code: string | null) => ({
  specimen_id,
  code,
  copy: null,
  print_id: 'p',
  repeat: 1,
  contender_id: 'A',
  artefact_id: 'clip',
  artefact: 'Clip',
  measured: 0,
});
const photo = (name: string, specimen_id: string) => ({
  path: `photos/${name}`,
  name,
  state: 'done',
  width: 100,
  height: 80,
  version: 'v',
  codes: [],
  marks: [],
  measures: [],
  registration: null,
  laid: null,
  isRectified: false,
  levels: 1,
  filed: { path: `photos/${name}`, specimen_id, view: 'front', light: 'flat', session: null },
});

const shown = (asked: string | null) =>
  render(
    <PhotoDesk
      {...({
        studyId: 'u',
        marks: [],
        views: {},
        asked,
        specimens: [specimen('S-1', 'K7-001'), specimen('S-2', null), specimen('S-3', null)],
        photos: [photo('a.jpg', 'S-1'), photo('b.jpg', 'S-2'), photo('c.jpg', 'S-3')],
      } as unknown as Parameters<typeof PhotoDesk>[0])}
    />,
  );

describe('the photos of a study', () => {
  it('are all there, though some specimens have no sticker', () => {
    shown(null);
    expect(screen.getByText('3 photos filed')).toBeTruthy();
  });

  it.each(['S-1', 'k7-001'])('are those of the specimen that is asked for: %s', (asked) => {
    shown(asked);
    expect(screen.getByText('1 photo filed')).toBeTruthy();
  });
});
