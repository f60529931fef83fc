// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { emptyOutbox } from '../../../tests/support/outbox';
import { json, toldApi } from '../../../tests/support/told-api';
import { fieldsOf } from '../records/fields';
import { AtTheMachine, type BookPage } from './AtTheMachine';

emptyOutbox();
const api = toldApi();
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

const steps = (rows: BookPage['rows'] = []): BookPage => ({
  table: 'setup_steps',
  title: 'Set-up log',
  one: 'step',
  keyColumns: ['machine_id', 'step'],
  fields: fieldsOf('setup_steps', ['what', 'kind', 'minutes', 'hands_s', 'snag']),
  isNumbered: true,
  clock: { field: 'minutes', what: 'this step', unit: 'min' },
  rows,
});
const heats = (rows: BookPage['rows'] = []): BookPage => ({
  table: 'heat_ups',
  title: 'Heating up',
  one: 'heat-up',
  keyColumns: [],
  rows,
  fields: fieldsOf('heat_ups', ['what', 'from_c', 'to_c', 'seconds']),
});
const shown = (...pages: BookPage[]) =>
  render(<AtTheMachine studyId="s" machineId="g" pages={pages} mayTakeOut />);
const known = {
  machine_id: 'g',
  step: 4,
  kind: 'unpack',
  what: 'unpack',
  minutes: 4,
  hands_s: 200,
  snag: 0,
  row_version: 2,
};

describe('the book at a machine', () => {
  it('is opened and closed by digits, which are digits again in a field', () => {
    shown(steps(), heats());
    fireEvent.keyDown(document.body, { key: '2' });
    expect(screen.getByRole('form', { name: 'New heat-up' })).toBeTruthy();
    fireEvent.keyDown(document.body, { key: '1' });
    expect(screen.queryByRole('form', { name: 'New heat-up' })).toBeNull();
    const form = screen.getByRole('form', { name: 'New step' });
    fireEvent.keyDown(within(form).getByLabelText(/^what/), { key: '2' });
    expect(screen.getByRole('form', { name: 'New step' })).toBe(form);
    fireEvent.keyDown(document.body, { key: '1' });
    expect(screen.queryByRole('form')).toBeNull();
    fireEvent.keyDown(document.body, { key: '7' });
    expect(screen.queryByRole('form')).toBeNull();
  });

  it('says each entry in one line, durations and choices as people do', () => {
    shown(steps([known]));
    fireEvent.keyDown(document.body, { key: '1' });
    const [line] = screen.getAllByRole('listitem');
    expect(line?.textContent).toContain(
      'unpack · unpack · minutes 4 · hands-on time 3:20 · snag, 0–4 0',
    );
  });

  it('sends the next number with when it was begun, and stands ready for another', async () => {
    api.answers['POST /studies/s/rows/setup_steps'] = () =>
      json({ ...known, step: 6, what: 'level', row_version: 1 }, 201);
    shown(steps([known]));
    fireEvent.keyDown(document.body, { key: '1' });
    fireEvent.change(screen.getByLabelText(/^what/), { target: { value: 'level' } });
    fireEvent.change(screen.getByLabelText(/^kind/), { target: { value: 'level' } });
    fireEvent.submit(screen.getByRole('form', { name: 'New step' }));
    await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(2));
    expect(api.asked[0]?.body).toMatchObject({
      machine_id: 'g',
      step: 5,
      what: 'level',
      at: expect.stringMatching(/^\d{4}-/) as string,
    });
    expect((screen.getByLabelText(/^what/) as HTMLInputElement).value).toBe('');
  });

  it('has a clock that Space starts and stops, into the field of its time', () => {
    vi.useFakeTimers({ now: 1_000_000 });
    shown(steps());
    fireEvent.keyDown(document.body, { key: '1' });
    fireEvent.change(screen.getByLabelText(/^what/), { target: { value: 'align' } });
    fireEvent.keyDown(document.body, { key: ' ' });
    vi.setSystemTime(1_000_000 + 150_000);
    fireEvent.keyDown(screen.getByLabelText(/^what/), { key: ' ' });
    expect((screen.getByLabelText(/^minutes/) as HTMLInputElement).value).toBe('');
    fireEvent.keyDown(document.body, { key: ' ' });
    expect((screen.getByLabelText(/^minutes/) as HTMLInputElement).value).toBe('2.5');
    // What was typed before stays.
    expect((screen.getByLabelText(/^what/) as HTMLInputElement).value).toBe('align');
  });

  it('takes a row out by its key and version; one without a key by all that it says', async () => {
    const heat = {
      machine_id: 'g',
      what: 'bed',
      from_c: 21,
      to_c: 60,
      seconds: 108,
      ambient_c: null,
      at: null,
      row_version: 1,
    };
    api.answers['DELETE /studies/s/rows/setup_steps/g/4'] = () => json(null, 204);
    api.answers['DELETE /studies/s/rows/heat_ups'] = () => json(null, 204);
    shown(steps([known]), heats([heat]));
    fireEvent.keyDown(document.body, { key: '1' });
    fireEvent.click(screen.getByRole('button', { name: /^Remove: unpack/ }));
    await waitFor(() => expect(screen.queryByRole('listitem')).toBeNull());
    fireEvent.keyDown(document.body, { key: '2' });
    fireEvent.click(screen.getByRole('button', { name: /^Remove: bed/ }));
    await waitFor(() => expect(screen.queryByRole('listitem')).toBeNull());
    const { row_version: _, ...said } = heat;
    expect(api.asked.map((one) => one.body)).toEqual([{ version: 2 }, said]);
  });

  it('keeps what could not be taken out, with the reason', async () => {
    shown(steps([known]));
    fireEvent.keyDown(document.body, { key: '1' });
    fireEvent.click(screen.getByRole('button', { name: /^Remove: unpack/ }));
    expect((await screen.findByRole('alert')).textContent).toBe('nothing here');
    expect(screen.getAllByRole('listitem')).toHaveLength(1);
  });
});
