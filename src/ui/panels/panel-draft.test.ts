import { describe, expect, it } from 'vitest';
import type { PanelPage } from '../../contract/panels';
import type { Subject } from '../photos/side-by-side/subjects';
import {
  begunDraft,
  candidatesOf,
  draftOf,
  draftOfPhotos,
  newDraft,
  placeOfDraft,
} from './panel-draft';

describe('the draft of a panel', () => {
  it('is of photos and by numbers at first, with no place and nothing to be shown', () => {
    const draft = newDraft('spire');
    expect(draft).toMatchObject({
      panel_id: null,
      kind: 'paired',
      artefact_id: 'spire',
      shown_as: 'photos',
      names: 'numbers',
      judges: 12,
      questions: 3,
      items: [],
    });
    expect(placeOfDraft(draft)).toBeNull();
  });

  it('of a kept panel is what it was planned as, without what became of it', () => {
    const page = {
      panel: {
        panel_id: 'p',
        kind: 'triangle',
        aspect: 'Which?',
        artefact_id: 'spire',
        target: null,
        row_version: 7,
      },
      setup: {
        panel_id: 'p',
        row_version: 3,
        opened_at: 'x',
        closed_at: 'y',
        closed_by: 'hand',
        revealed_at: 'z',
        shown_as: 'photos',
        names: 'initials',
        view: 'front',
        light: 'flat',
        levels: 'matched',
        x_mm: -5,
        y_mm: 0,
        w_mm: 10,
        h_mm: 8,
        judges: 24,
        questions: 4,
        asked_again: 0,
        effect: 0.65,
        closes_at: null,
      },
      items: [{ specimen_id: 'A-1', path: 'photos/a.jpg', code: '123', contender_id: 'A' }],
    } as unknown as PanelPage;
    const draft = draftOf(page);
    expect(draft).toEqual({
      panel_id: 'p',
      kind: 'triangle',
      aspect: 'Which?',
      artefact_id: 'spire',
      target: null,
      shown_as: 'photos',
      names: 'initials',
      view: 'front',
      light: 'flat',
      levels: 'matched',
      x_mm: -5,
      y_mm: 0,
      w_mm: 10,
      h_mm: 8,
      judges: 24,
      questions: 4,
      asked_again: 0,
      effect: 0.65,
      closes_at: null,
      items: [{ specimen_id: 'A-1', path: 'photos/a.jpg' }],
    });
    expect(placeOfDraft(draft)).toEqual({ x: -5, y: 0, w: 10, h: 8 });
    // One that came with a package was never planned here.
    expect(draftOf({ ...page, setup: null })).toMatchObject({ panel_id: 'p', judges: 12 });
  });

  it('has no place where one of its four sides is missing', () => {
    const draft = { ...newDraft(null), x_mm: 0, y_mm: 0, w_mm: 10 };
    expect(placeOfDraft(draft)).toBeNull();
    expect(placeOfDraft({ ...draft, h_mm: 0 })).toEqual({ x: 0, y: 0, w: 10, h: 0 });
  });
});

describe('who could be shown', () => {
  const specimens = [
    { specimen_id: 'A-1', code: 'K7-001', contender_id: 'A', artefact_id: 'spire' },
    { specimen_id: 'A-2', code: null, contender_id: 'A', artefact_id: 'spire' },
    { specimen_id: 'A-3', code: null, contender_id: 'A', artefact_id: 'clip' },
  ];
  const subject = {
    photos: [
      {
        photo: { path: 'photos/a.jpg', filed: { specimen_id: 'A-1' } },
        contender: 'A',
        code: 'K7-001',
      },
    ],
  } as unknown as Subject;

  it('by photos are those of the view, none before one is chosen', () => {
    const draft = newDraft('spire');
    expect(candidatesOf(draft, subject, specimens)).toEqual([
      { specimen_id: 'A-1', code: 'K7-001', contender_id: 'A', path: 'photos/a.jpg' },
    ]);
    expect(candidatesOf(draft, undefined, specimens)).toEqual([]);
  });

  it('by the parts themselves are all of the artefact, by code or id', () => {
    const draft = { ...newDraft('spire'), shown_as: 'parts' as const };
    expect(candidatesOf(draft, subject, specimens)).toEqual([
      { specimen_id: 'A-1', code: 'K7-001', contender_id: 'A', path: null },
      { specimen_id: 'A-2', code: 'A-2', contender_id: 'A', path: null },
    ]);
  });
});

describe('a draft that begins', () => {
  const subject = {
    key: 'spire/front/flat',
    artefact_id: 'spire',
    artefact: 'Spire',
    view: 'front',
    light: 'unknown',
    photos: ['A', 'B', 'C'].map((contender) => ({
      photo: {
        path: `photos/${contender}.jpg`,
        filed: { specimen_id: `${contender}-1` },
        laid: { box: { x: -20, y: 0, w: 40, h: 30 } },
      },
      contender,
      code: `K-${contender}`,
    })),
  } as unknown as Subject;
  const zone = (w: number) =>
    ({
      zone_id: `z${w}`,
      name: 'wall',
      place: { side: 'front', u1_mm: 0, v1_mm: 0, u2_mm: w, v2_mm: 5 },
    }) as never;

  it('shows the largest zone of that side, and everyone’s photo of it', () => {
    const draft = draftOfPhotos(newDraft(null), subject, { spire: [zone(4), zone(12)] }, []);
    expect(draft).toMatchObject({
      shown_as: 'photos',
      artefact_id: 'spire',
      view: 'front',
      light: null,
      x_mm: 0,
      y_mm: 0,
      w_mm: 12,
      h_mm: 5,
    });
    expect(draft.items.map((one) => one.specimen_id)).toEqual(['A-1', 'B-1', 'C-1']);
  });

  it('shows the whole photo where no zone lies on that side', () => {
    const draft = draftOfPhotos(newDraft(null), subject, {}, []);
    expect(placeOfDraft(draft)).toEqual({ x: -20, y: 0, w: 40, h: 30 });
  });

  it('asks each judge of as many pairs as there are, and of the parts where there are no photos', () => {
    expect(begunDraft([subject], null, {}, []).questions).toBe(3);
    const parts = begunDraft([], 'spire', {}, [
      { specimen_id: 'A-1', code: null, contender_id: 'A', artefact_id: 'spire' },
      { specimen_id: 'B-1', code: 'K-B', contender_id: 'B', artefact_id: 'spire' },
    ] as never);
    expect(parts).toMatchObject({ shown_as: 'parts', artefact_id: 'spire', questions: 1 });
    expect(parts.items).toEqual([
      { specimen_id: 'A-1', path: null },
      { specimen_id: 'B-1', path: null },
    ]);
  });
});
