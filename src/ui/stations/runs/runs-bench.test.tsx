// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { contenderMarks } from '../../../core/model/study';
import { emptyOutbox } from '../../../../tests/support/outbox';
import { eventStreams } from '../../../../tests/support/event-source';
import { smallStudy } from '../../../../tests/support/small-study';
import { json, toldApi } from '../../../../tests/support/told-api';
import { writesUnderWay } from '../../kit/request';
import { packRows } from '../../lib/packed-rows';
import { RunsBench } from './RunsBench';

emptyOutbox();
eventStreams();
const api = toldApi();
afterEach(cleanup);

const EVENTS = '/studies/u/rows/print_events';
const { tables } = smallStudy({
  machines: [{ machine_id: 'a', name: 'Auklet' }],
  profiles: [{ profile_id: 's', name: 'As shipped', kind: 'stock' }],
  contenders: [{ contender_id: 'A', label: 'A', machine_id: 'a', profile_id: 's' }],
});
const print = {
  print_id: 'P-1',
  contender_id: 'A',
  artefact_id: 'clip',
  material_id: 'pla',
  repeat: 1,
  started_at: '2026-11-27T10:00:00+00:00',
  estimate_s: 3600,
  row_version: 1,
};

/** The answers that a test gives when it wants to, the oldest first. */
let answers: ((answer: Response) => void)[];
beforeEach(() => {
  answers = [];
  api.answers[`POST ${EVENTS}`] = () => new Promise((resolve) => answers.push(resolve));
});

const shown = () =>
  render(
    <RunsBench
      {...({
        studyId: 'u',
        reference: 'A',
        asked: null,
        machineNames: { a: 'Auklet' },
        marks: contenderMarks(tables.contenders, tables.machines, tables.profiles),
        prints: packRows([]),
        incidents: packRows([]),
        tallies: [],
        openPrints: [print],
        photos: [],
        artefacts: [{ id: 'clip', name: 'Clip' }],
        materials: [],
        copyPlaces: {},
        machineOf: { A: 'a' },
        codes: [],
        planned: [],
        files: [],
        warnings: {},
        events: [],
        order: [],
        machines: {},
        incomplete: [],
        lotFields: [],
        startFields: [],
        endFields: [],
        printFields: [],
        incidentFields: [],
        link: {
          isLinked: false,
          revision: '1',
          machines: [],
          dropped: [],
          strangers: [],
          addresses: [],
        },
      } as unknown as Parameters<typeof RunsBench>[0])}
    />,
  );
const kinds = () => api.asked.map(({ body }) => (body as { kind: string }).kind);
/** The turn of the first machine, as a hand presses it. */
const turn = async () => {
  fireEvent.keyDown(document.body, { key: '!', code: 'Digit1', shiftKey: true });
  await new Promise((resolve) => setTimeout(resolve, 100));
};

describe('what happens to a print that runs', () => {
  it('is noted by its key, and the same key means the opposite at once', async () => {
    shown();
    await turn();
    expect(screen.getByText('paused')).toBeTruthy();
    await turn();
    expect(screen.queryByText('paused')).toBeNull();
    // The second waits until the first is there.
    expect(kinds()).toEqual(['paused']);
    answers[0]?.(json({}, 201));
    await waitFor(() => expect(kinds()).toEqual(['paused', 'resumed']));
    answers[1]?.(json({}, 201));
    await waitFor(() => expect(writesUnderWay()).toBe(0));
  });

  it('is taken back where it is refused, with the reason', async () => {
    shown();
    await turn();
    answers[0]?.(json({ detail: 'The print has ended.' }, 409));
    expect((await screen.findByRole('alert')).textContent).toBe('The print has ended.');
    expect(screen.queryByText('paused')).toBeNull();
    await turn();
    await waitFor(() => expect(kinds()).toEqual(['paused', 'paused']));
    expect(screen.queryByRole('alert')).toBeNull();
    answers[1]?.(json({}, 201));
    await waitFor(() => expect(writesUnderWay()).toBe(0));
  });

  it('stands where the server is away', async () => {
    api.answers[`POST ${EVENTS}`] = () => Promise.reject(new TypeError('network'));
    shown();
    await turn();
    await waitFor(() => expect(kinds()).toEqual(['paused']));
    await turn();
    expect(screen.queryByText('paused')).toBeNull();
    expect(screen.queryByRole('alert')).toBeNull();
  });
});
