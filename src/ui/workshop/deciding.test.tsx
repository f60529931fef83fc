// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { json, toldApi } from '../../../tests/support/told-api';
import { AddBy } from '../stations/line-up/AddBy';
import { AskedPairs } from './AskedPairs';
import { NewItem } from './NewItem';

const api = toldApi();
let gone: string[];
beforeEach(() => {
  gone = [];
  vi.stubGlobal('location', {
    ...window.location,
    assign: (href: string) => gone.push(href),
    reload: () => gone.push('again'),
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const side = (uid: string, ...studies: string[]) => ({ uid, name: 'Gannet X24', studies });
const PAIR = { one: side('a', 'Bench'), other: side('b'), by: 'name and maker' };

describe('two that may be one', () => {
  it('are put together only when a person says so', async () => {
    api.answers['POST /things/a'] = () => json(null, 204);
    render(<AskedPairs pairs={[PAIR]} one="machine" />);
    expect(screen.getByRole('listitem').textContent).toContain('the same name and maker');
    expect(api.asked).toEqual([]);
    fireEvent.click(screen.getByRole('button', { name: 'They are one' }));
    await waitFor(() => expect(gone).toEqual(['again']));
    expect(api.asked[0]?.body).toEqual({ action: 'merge', other: 'b' });
  });

  it('are no longer asked about once they were told apart', async () => {
    api.answers['POST /things/a'] = () => json(null, 204);
    render(<AskedPairs pairs={[PAIR]} one="machine" />);
    fireEvent.click(screen.getByRole('button', { name: 'They are two' }));
    await waitFor(() => expect(screen.queryByRole('listitem')).toBeNull());
    expect(api.asked[0]?.body).toEqual({ action: 'apart', other: 'b' });
    expect(gone).toEqual([]);
  });

  it('stay where it could not be done, with the reason', async () => {
    api.answers['POST /things/a'] = () => json({ detail: 'They stand side by side.' }, 409);
    render(<AskedPairs pairs={[PAIR]} one="machine" />);
    fireEvent.click(screen.getByRole('button', { name: 'They are one' }));
    expect((await screen.findByRole('alert')).textContent).toBe('They stand side by side.');
    expect(screen.getByRole('listitem')).toBeTruthy();
  });
});

describe('a name that is there already', () => {
  const twin = { detail: 'There is one already.', current: { uid: 't', name: 'Gannet X24' } };

  it('is asked about in the workshop: that one, or a second one', async () => {
    api.answers['POST /things'] = () => json(twin, 409);
    render(<NewItem kind="machine" page="machines" />);
    fireEvent.change(screen.getByRole('textbox'), { target: { value: ' Gannet X24 ' } });
    fireEvent.click(screen.getByRole('button', { name: 'Add' }));
    const that = await screen.findByRole('link', { name: 'Use existing' });
    expect(that.getAttribute('href')).toBe('/machines/t');
    api.answers['POST /things'] = () => json({ uid: 'n' }, 201);
    fireEvent.click(screen.getByRole('button', { name: 'Add another' }));
    await waitFor(() => expect(gone).toEqual(['/machines/n']));
    expect(api.asked.map((one) => one.body)).toEqual([
      { kind: 'machine', facts: { name: 'Gannet X24' } },
      { kind: 'machine', facts: { name: 'Gannet X24' }, evenIfNamed: true },
    ]);
  });

  it('is asked about in a line-up, and that one is taken by its id', async () => {
    api.answers['POST /studies/s/line-up'] = () => json(twin, 409);
    render(<AddBy studyId="s" kind="machine" placeholder="+" offered={[]} />);
    fireEvent.change(screen.getByRole('combobox'), { target: { value: 'gannet x24' } });
    fireEvent.keyDown(screen.getByRole('combobox'), { key: 'Enter' });
    fireEvent.click(await screen.findByRole('button', { name: 'Use existing' }));
    await waitFor(() => expect(api.asked).toHaveLength(2));
    expect(api.asked.map((one) => one.body)).toEqual([
      { add: 'machine', picked: { name: 'gannet x24' } },
      { add: 'machine', picked: { uid: 't' } },
    ]);
  });

  it('is proposed while it is typed, by name and by what tells it apart', () => {
    const offered = [
      { uid: 'a', name: 'Gannet X24', about: 'Holm Dynamics' },
      { uid: 'b', name: 'Auklet 19', about: 'Skerry Works' },
    ];
    render(<AddBy studyId="s" kind="machine" placeholder="+" offered={offered} />);
    const type = (value: string) =>
      fireEvent.change(screen.getByRole('combobox'), { target: { value } });
    type('skerry');
    expect(screen.getAllByRole('option').map((one) => one.textContent)).toEqual([
      'Auklet 19 Skerry Works',
    ]);
    type('nobody');
    expect(screen.queryByRole('option')).toBeNull();
    expect(screen.getByRole('listbox').textContent).toBe('Enter makes a new machine.');
  });
});
