// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { emptyOutbox } from '../../../tests/support/outbox';
import { json, toldApi } from '../../../tests/support/told-api';
import { writesUnderWay } from '../kit/request';
import type { FieldSpec } from './fields';
import { NewRecord } from './NewRecord';

emptyOutbox();
const api = toldApi();
afterEach(cleanup);

const FIELDS: FieldSpec[] = [
  { name: 'name', label: 'name', unit: null, kind: 'text', required: true },
  {
    name: 'file',
    label: 'file',
    unit: null,
    kind: 'choice',
    required: false,
    options: [
      { value: 'a', label: 'a.gcode' },
      { value: 'b', label: 'b.gcode' },
    ],
  },
  { name: 'estimate_s', label: 'estimate', unit: 'h:mm:ss', kind: 'duration', required: false },
  { name: 'mass', label: 'mass', unit: 'g', kind: 'number', required: false },
];
const onAdded = vi.fn();
const onCancel = vi.fn();

beforeEach(() => {
  onAdded.mockClear();
  onCancel.mockClear();
  api.answers['POST /things'] = (body) => json({ ...(body as object), row_version: 1 }, 201);
});

const shown = (more: Partial<Parameters<typeof NewRecord>[0]> = {}) =>
  render(
    <NewRecord
      path="/things"
      fields={FIELDS}
      label="New thing"
      action="Add it"
      derive={(name, value) => (name === 'file' && value === 'b' ? { estimate_s: 5400 } : {})}
      onAdded={onAdded}
      onCancel={onCancel}
      {...more}
    />,
  );
const field = (label: RegExp) => screen.getByLabelText<HTMLInputElement>(label);
const type = (label: RegExp, value: string) =>
  fireEvent.change(field(label), { target: { value } });
const add = () => fireEvent.submit(screen.getByRole('form', { name: 'New thing' }));
const sent = () => api.asked.map(({ body }) => body);

describe('a form for a new row', () => {
  it('is sent as a whole, once however often Enter comes down', async () => {
    shown({ initial: { maker: 'Skerry Works' } });
    type(/^name/, 'Auklet');
    type(/^mass/, '12,5');
    add();
    add();
    await waitFor(() => expect(onAdded).toHaveBeenCalledOnce());
    expect(sent()).toEqual([{ maker: 'Skerry Works', name: 'Auklet', mass: 12.5 }]);
  });

  it('takes the next row while one is on its way: both are added, and a link waits for both', async () => {
    const ends: (() => void)[] = [];
    api.answers['POST /things'] = (body) =>
      new Promise((end) =>
        ends.push(() => end(json({ ...(body as object), row_version: 1 }, 201))),
      );
    shown({ isSeries: true, idColumn: 'thing_id' });
    type(/^name/, 'Auklet');
    add();
    await waitFor(() => expect(ends).toHaveLength(1));
    type(/^name/, 'Gannet');
    add();
    add();
    expect(writesUnderWay()).toBe(2);
    ends[0]?.();
    await waitFor(() => expect(ends).toHaveLength(2));
    expect(onAdded.mock.calls.map(([, isNext]) => isNext as boolean)).toEqual([true]);
    type(/^name/, 'Petr');
    ends[1]?.();
    await waitFor(() => expect(onAdded).toHaveBeenCalledTimes(2));
    await waitFor(() => expect(writesUnderWay()).toBe(0));
    const rows = sent() as { name: string; thing_id: string }[];
    expect(rows.map(({ name }) => name)).toEqual(['Auklet', 'Gannet']);
    expect(new Set(rows.map((row) => row.thing_id)).size).toBe(2);
    // What was not finished stays where it was typed.
    expect(field(/^name/).value).toBe('Petr');
  });

  it('says which row was refused, where the next one stands in its place', async () => {
    let refuse: () => void = () => undefined;
    api.answers['POST /things'] = () =>
      new Promise(
        (end) => (refuse = () => end(json({ detail: 'It is there already.', status: 409 }, 409))),
      );
    shown({ isSeries: true });
    type(/^name/, 'Auklet');
    add();
    await waitFor(() => expect(sent()).toHaveLength(1));
    type(/^name/, 'Gannet');
    add();
    refuse();
    const alert = await screen.findByRole('alert');
    expect(alert.textContent).toBe('Auklet was not added: It is there already.');
    expect([field(/^name/).value, sent().length, writesUnderWay()]).toEqual(['Gannet', 1, 0]);
  });

  it('has the same id however often it is tried', async () => {
    shown({ idColumn: 'thing_id' });
    type(/^name/, 'Auklet');
    api.answers['POST /things'] = () => json({ detail: 'not now' }, 503);
    add();
    await screen.findByText('not now');
    api.answers['POST /things'] = (body) => json(body, 201);
    add();
    await waitFor(() => expect(onAdded).toHaveBeenCalledOnce());
    const [first, second] = sent() as { thing_id: string }[];
    expect(first?.thing_id).toMatch(/^[0-9a-f-]{36}$/);
    expect(second).toEqual(first);
  });

  it('shows what follows from a value in the field that it is for', async () => {
    shown();
    type(/^name/, 'Auklet');
    type(/^estimate/, '1:00:00');
    type(/^file/, 'b');
    expect(field(/^estimate/).value).toBe('1:30:00');
    // It can be changed still, and stays as it is typed.
    type(/^estimate/, '80:05');
    expect(field(/^estimate/).value).toBe('80:05');
    add();
    await waitFor(() => expect(onAdded).toHaveBeenCalledOnce());
    expect(sent()).toEqual([{ name: 'Auklet', file: 'b', estimate_s: 4805 }]);
  });

  it('is not held up by what could not be read and has been filled in since', async () => {
    shown();
    type(/^name/, 'Auklet');
    type(/^estimate/, 'an hour');
    add();
    expect(api.asked).toEqual([]);
    expect(screen.getByRole('alert').textContent).toContain('“an hour” is not a time');
    type(/^file/, 'b');
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
    add();
    await waitFor(() => expect(onAdded).toHaveBeenCalledOnce());
    expect(sent()).toEqual([{ name: 'Auklet', file: 'b', estimate_s: 5400 }]);
  });

  it('is not sent with a value that was typed and emptied again, where there must be one', () => {
    shown();
    type(/^name/, 'Auklet');
    type(/^name/, '');
    add();
    expect(api.asked).toEqual([]);
    expect(screen.getByRole('alert').textContent).toBe('must hold a value');
    type(/^name/, 'A');
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('says which field the server finds fault with, and keeps what was typed', async () => {
    const issues = [{ path: 'print.mass', message: 'at most 10 000' }];
    api.answers['POST /things'] = () => json({ detail: 'It breaks a rule.', issues }, 422);
    shown();
    type(/^name/, 'Auklet');
    type(/^mass/, '99999');
    add();
    await screen.findByText('It breaks a rule.');
    expect(screen.getByText('at most 10 000')).toBeTruthy();
    expect(field(/^mass/).getAttribute('aria-invalid')).toBe('true');
    expect([field(/^name/).value, field(/^mass/).value]).toEqual(['Auklet', '99999']);
    expect(onAdded).not.toHaveBeenCalled();
  });

  it('is kept in this browser while the server is away, where it may be', async () => {
    api.answers['POST /things'] = () => Promise.reject(new TypeError('network'));
    shown({ isKept: true, initial: { name: 'Auklet' } });
    add();
    await waitFor(() =>
      expect(onAdded).toHaveBeenCalledWith({ name: 'Auklet', row_version: 1 }, false),
    );
    cleanup();
    shown({ initial: { name: 'Auklet' } });
    add();
    await screen.findByText('The server does not answer.');
  });

  it('is left by Escape or by its button', () => {
    shown();
    fireEvent.keyDown(field(/^name/), { key: 'Escape' });
    fireEvent.click(screen.getByRole('button', { name: 'Cancel' }));
    expect(onCancel).toHaveBeenCalledTimes(2);
  });
});
