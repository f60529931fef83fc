// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { json, toldApi } from '../../../tests/support/told-api';
import type { AccessKey, Device, Person } from '../../contract/access';
import { Devices } from './Devices';
import { DoorLog, describeDetail } from './DoorLog';
import { Enter } from './Enter';
import { KeyTable } from './KeyTable';
import { OwnPassword } from './OwnPassword';
import { PairDevice } from './PairDevice';
import { PeopleTable } from './PeopleTable';
import { SignIn } from './SignIn';

const api = toldApi();
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

const type = (label: string | RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
const alert = async () => (await screen.findByRole('alert')).textContent;
const refusal = (detail: string, status = 401) => json({ detail }, status);

describe('signing in', () => {
  it('says what the door says, and lets one try again', async () => {
    api.answers['POST /sign-in'] = () => refusal('The name or the password is wrong.');
    render(<SignIn to="/machines" isNamed={false} />);
    type('name', 'Kim');
    type('password', 'wrong');
    fireEvent.submit(
      screen.getByRole('button', { name: 'Sign in' }).closest('form') as HTMLElement,
    );
    expect(await alert()).toBe('The name or the password is wrong.');
    expect(api.asked[0]?.body).toEqual({ name: 'Kim', password: 'wrong' });
    expect((screen.getByRole('button') as HTMLButtonElement).disabled).toBe(false);
  });
});

describe('a link', () => {
  const token = 'T'.repeat(43);
  const submit = () => fireEvent.submit(screen.getByRole('button').closest('form') as HTMLElement);

  it('to own the workshop asks for name and password, and says why one will not do', async () => {
    api.answers['POST /enter'] = () => refusal('A password has at least 12 characters.', 422);
    render(<Enter token={token} offer={{ kind: 'owner', name: null, role: 'owner' }} />);
    type('name', 'Kim');
    type('initials', 'KM');
    type(/^password/, 'short');
    submit();
    expect(await alert()).toContain('at least 12 characters');
    expect(api.asked[0]?.body).toEqual({ token, name: 'Kim', initials: 'KM', password: 'short' });
  });

  it('of a device says as whom it comes in, and asks for nothing', async () => {
    api.answers['POST /enter'] = () => refusal('This link is not good any more.', 410);
    render(<Enter token={token} offer={{ kind: 'device', name: 'Kim', role: 'operator' }} />);
    expect(screen.getByText(/This device comes in as/).textContent).toContain(
      'Kim, operator: prints, measures',
    );
    expect(screen.queryByRole('textbox')).toBeNull();
    submit();
    expect(await alert()).toContain('not good any more');
    expect(api.asked[0]?.body).toEqual({ token });
  });

  it('of a person knows the name already', () => {
    render(<Enter token={token} offer={{ kind: 'person', name: 'Pia', role: 'reader' }} />);
    expect(screen.queryByLabelText('name')).toBeNull();
    expect(screen.getByText(/Set the password for/).textContent).toContain('Pia, reader');
  });
});

describe('the code for a phone', () => {
  it('stands for minutes, counts down, and is over then', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    api.answers['POST /me/devices'] = () => json({ path: '/enter/abc', minutes: 5 }, 201);
    render(
      <PairDevice
        roles={['evaluator', 'operator', 'reader']}
        base="https://bench.example"
        leadsTo="/x"
      />,
    );
    press('Show the code');
    expect(await screen.findByRole('img', { name: 'Code that signs a device in' })).toBeTruthy();
    expect(screen.getByRole('link').getAttribute('href')).toBe('https://bench.example/enter/abc');
    expect(screen.getByText(/Good once, for/).textContent).toMatch(/for 5:00|for 4:59/);
    await act(() => vi.advanceTimersByTimeAsync(290_000));
    expect(screen.getByText(/Good once, for/).textContent).toMatch(/for 0:(?:10|09)/);
    await act(() => vi.advanceTimersByTimeAsync(12_000));
    expect(screen.queryByRole('img')).toBeNull();
    expect(screen.getByText('The code has expired. Show a new one.')).toBeTruthy();
    // What is handed on is what one works with at the bench, unless another role is chosen.
    expect(api.asked[0]?.body).toEqual({ role: 'operator', leads_to: '/x' });
  });
});

describe('devices', () => {
  const device = (session_id: string, isThis: boolean): Device => ({
    session_id,
    isThis,
    person_id: 'p',
    role: 'reader',
    device: `phone: ${session_id}`,
    address: '192.0.2.7',
    made_at: '',
    used_at: '2026-10-01T10:00:00Z',
  });

  it('are signed out one by one; one that is gone already says so and stays', async () => {
    api.answers['DELETE /me/devices/a'] = () => json(null, 204);
    render(<Devices devices={[device('a', false), device('b', false), device('c', true)]} />);
    press('Sign out phone: a');
    await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(2));
    press('Sign out phone: b');
    expect(await alert()).toBe('nothing here');
    expect(screen.getAllByRole('listitem')).toHaveLength(2);
    expect(screen.getByRole('button', { name: 'Sign out this device' })).toBeTruthy();
  });
});

describe('one’s own password', () => {
  it('is changed by who knows the present one; the fields are empty then', async () => {
    api.answers['PATCH /me'] = () => refusal('This is not the present password.', 403);
    render(<OwnPassword />);
    type('present password', 'not it');
    type(/^new password/, 'spools on a warm shelf');
    const submit = () =>
      fireEvent.submit(screen.getByRole('button').closest('form') as HTMLElement);
    submit();
    expect(await alert()).toBe('This is not the present password.');
    api.answers['PATCH /me'] = () => json(null, 204);
    submit();
    expect((await screen.findByRole('status')).textContent).toContain('sign in again');
    expect((screen.getByLabelText('present password') as HTMLInputElement).value).toBe('');
  });
});

describe('people', () => {
  const person = (name: string, more: Partial<Person> = {}): Person => ({
    person_id: name,
    name,
    initials: null,
    role: 'reader',
    closed_at: null,
    created_at: '',
    row_version: 3,
    ...more,
  });
  const shown = (...people: Person[]) =>
    render(<PeopleTable people={people} base="https://b.example" />);

  it('are let in by name, with the link to hand over', async () => {
    api.answers['POST /people'] = () =>
      json({ person: person('Pia'), link: { path: '/enter/x', minutes: 1440 } }, 201);
    shown();
    type('Name of a new person', ' Pia ');
    type('Role of a new person', 'operator');
    press('Let in');
    expect((await screen.findByRole('status')).textContent).toContain(
      'within 24 hours: https://b.example/enter/x',
    );
    expect(api.asked[0]?.body).toEqual({ name: 'Pia', initials: null, role: 'operator' });
    expect((screen.getByLabelText('Name of a new person') as HTMLInputElement).value).toBe('');
  });

  it('have a role that is changed from the version that was read, and a door that is closed and opened', async () => {
    let state = person('Pia');
    api.answers['PATCH /people/Pia'] = () => {
      const last = (api.asked.at(-1)?.body ?? {}) as { version?: number; isClosed?: boolean };
      const { version: _, isClosed, ...sent } = last;
      state = {
        ...state,
        ...sent,
        closed_at: isClosed ? '2026-10-01' : null,
        row_version: state.row_version + 1,
      };
      return json(state);
    };
    shown(state);
    type('Role of Pia', 'evaluator');
    await waitFor(() =>
      expect((screen.getByLabelText('Role of Pia') as HTMLSelectElement).value).toBe('evaluator'),
    );
    press('Close the door to Pia');
    expect(await screen.findByText(/no longer comes in/)).toBeTruthy();
    // Who does not come in needs no password.
    expect(screen.queryByRole('button', { name: 'New password for Pia' })).toBeNull();
    press('Open the door to Pia');
    await waitFor(() => expect(screen.queryByText(/no longer comes in/)).toBeNull());
    expect(api.asked.map(({ body }) => body)).toEqual([
      { version: 3, role: 'evaluator' },
      { version: 4, isClosed: true },
      { version: 5, isClosed: false },
    ]);
  });

  it('stay as they were where it is refused, with the reason', async () => {
    api.answers['PATCH /people/Kim'] = () =>
      refusal('This is the last owner: make another one first.', 409);
    shown(person('Kim', { role: 'owner' }));
    type('Role of Kim', 'reader');
    expect(await alert()).toContain('the last owner');
    expect((screen.getByLabelText('Role of Kim') as HTMLSelectElement).value).toBe('owner');
  });
});

describe('keys', () => {
  const key = (name: string, more: Partial<AccessKey> = {}): AccessKey => ({
    key_id: name,
    name,
    role: 'reader',
    machine_id: null,
    made_by: 'p',
    made_at: '2026-01-01T00:00:00Z',
    ends_at: '2999-01-01T00:00:00Z',
    used_at: null,
    revoked_at: null,
    ...more,
  });

  it('say until when they are good; one that was taken back cannot be taken back', () => {
    render(
      <KeyTable
        keys={[
          key('a'),
          key('b', { ends_at: '2020-05-01T00:00:00Z', used_at: '2020-04-01T00:00:00Z' }),
          key('c', { revoked_at: '2021-02-03T00:00:00Z' }),
        ]}
      />,
    );
    const said = screen.getAllByRole('listitem').map((item) => item.textContent);
    expect(said[0]).toContain('reader · until 2999-01-01 · never used');
    expect(said[1]).toContain('ended 2020-05-01 · last used 2020-04-01');
    expect(said[2]).toContain('taken back 2021-02-03');
    expect(screen.queryByRole('button', { name: 'Take back the key c' })).toBeNull();
  });

  it('are shown once, and stay shown though the list is read anew', async () => {
    api.answers['POST /keys'] = () => json({ key_id: 'k', secret: 'S3CRET', ends_at: '' }, 201);
    api.answers['GET /keys'] = () => json([key('scale')]);
    render(<KeyTable keys={[]} />);
    type('Name of a new key', 'scale');
    type('Days that a new key lasts', '7');
    press('Make the key');
    await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(1));
    expect(screen.getByRole('status').textContent).toContain('S3CRET');
    expect(api.asked[0]?.body).toEqual({ name: 'scale', role: 'reader', days: 7 });
  });
});

describe('the log of the doors', () => {
  it.each([
    [{ how: 'by password', role: 'owner', device: 'phone: X' }, 'by password, as owner, phone: X'],
    [{ from: 'evaluator', to: 'reader' }, 'no longer evaluator, now reader'],
    [{ role: 'reader', days: 7 }, 'as reader, for 7 days'],
    [{}, ''],
    [{ role: { odd: true } }, ''],
  ])('%j reads “%s”', (detail, words) => {
    expect(describeDetail(detail)).toBe(words);
  });

  it('says who did what to whom, and oneself once', () => {
    const entry = { at: '2026-10-01T10:00:00Z', address: null, detail: {} };
    render(
      <DoorLog
        names={new Map([['person:1', 'Kim']])}
        entries={[
          {
            ...entry,
            what: 'role changed',
            actor: 'person:1',
            name: 'Pia',
            detail: { from: 'reader', to: 'operator' },
          },
          { ...entry, what: 'signed in', actor: 'person:1', name: 'Kim', address: '192.0.2.7' },
        ]}
      />,
    );
    const said = screen.getAllByRole('listitem').map((item) => item.textContent);
    expect(said[0]).toContain('role changed Pia by Kim, no longer reader, now operator');
    expect(said[1]).toContain('signed in  by Kim, from 192.0.2.7');
  });
});
