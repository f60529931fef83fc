// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { emptyOutbox } from '../../../../tests/support/outbox';
import { json, toldApi } from '../../../../tests/support/told-api';
import { LadderBench } from './LadderBench';

emptyOutbox();
const api = toldApi();
afterEach(cleanup);

const RESULTS = '/studies/u/rows/ladder_results';
const CHECKS = '/studies/u/rows/function_results';
const later = async (answer: () => Response) => {
  await new Promise((resolve) => setTimeout(resolve, 20));
  return answer();
};

beforeEach(() => {
  api.answers[`POST ${RESULTS}`] = (body) =>
    later(() => json({ ...(body as object), row_version: 1 }, 201));
  api.answers[`POST ${CHECKS}`] = (body) =>
    later(() => json({ ...(body as object), row_version: 1 }, 201));
});

const specimen = (specimen_id: string, more: object = {}) => ({
  specimen_id,
  code: null,
  copy: null,
  print_id: 'p',
  repeat: 1,
  contender_id: 'A',
  artefact_id: 'rings',
  artefact: 'Ring stack',
  measured: 0,
  ...more,
});

const shown = (more: object = {}) =>
  render(
    <LadderBench
      {...({
        studyId: 'u',
        marks: [],
        asked: null,
        drawings: {},
        specimens: [specimen('S-1', { code: 'K7-001' }), specimen('S-2')],
        ladders: {
          rings: [
            {
              ladder_id: 'gap',
              name: 'Rings that turn',
              unit: 'mm',
              steps: [0.2, 0.3, 0.4].map((value, at) => ({ step: at + 1, value, place: null })),
            },
          ],
        },
        checks: { rings: ['turns'] },
        results: [],
        functions: [],
        ...more,
      } as unknown as Parameters<typeof LadderBench>[0])}
    />,
  );
const step = (name: string) => screen.getByRole('button', { name: `Rings that turn ${name}` });
const say = (word: string) =>
  fireEvent.click(
    within(screen.getByRole('group', { name: 'How the step went' })).getByRole('button', {
      name: new RegExp(word),
    }),
  );
const sent = () => api.asked.map(({ method, path, body }) => [method, path, body]);
const result = (at: number, said: string) => ({
  specimen_id: 'S-1',
  ladder_id: 'gap',
  step: at,
  result: said,
});

describe('ladders at the bench', () => {
  it('take a key for each step, the next one at once', async () => {
    shown();
    fireEvent.keyDown(document.body, { key: 'c' });
    await waitFor(() => expect(step('0.2: clear')).toBeTruthy());
    expect(step('0.3: no result').getAttribute('aria-pressed')).toBe('true');
    fireEvent.keyDown(document.body, { key: 'E' });
    await waitFor(() => expect(step('0.3: with effort')).toBeTruthy());
    fireEvent.keyDown(document.body, { key: 'f' });
    await waitFor(() =>
      expect(screen.getByRole('status').textContent).toBe(
        'All steps of this specimen are done. PgDn goes to the next one.',
      ),
    );
    await waitFor(() => expect(api.asked).toHaveLength(3));
    expect(sent()).toEqual([
      ['POST', RESULTS, result(1, 'clear')],
      ['POST', RESULTS, result(2, 'effort')],
      ['POST', RESULTS, result(3, 'fail')],
    ]);
  });

  it('change what was said while it is still on its way', async () => {
    api.answers[`PATCH ${RESULTS}/S-1/gap/1`] = () => json({});
    shown();
    say('clear');
    fireEvent.click(step('0.2: clear'));
    say('broken');
    expect(step('0.2: broken')).toBeTruthy();
    // The change waits until the step is there, and names the version that it has then.
    expect(sent()).toEqual([]);
    await waitFor(() => expect(api.asked).toHaveLength(2));
    expect(sent()).toEqual([
      ['POST', RESULTS, result(1, 'clear')],
      ['PATCH', `${RESULTS}/S-1/gap/1`, { version: 1, change: { result: 'broken' } }],
    ]);
  });

  it('put back what is refused, and say why', async () => {
    api.answers[`POST ${RESULTS}`] = () => json({ detail: 'the study is closed' }, 422);
    shown();
    say('clear');
    await waitFor(() =>
      expect(screen.getByRole('status').textContent).toBe('0.2 was not saved: the study is closed'),
    );
    expect(step('0.2: no result')).toBeTruthy();
  });

  it('keep what is said without a connection', async () => {
    api.answers[`POST ${RESULTS}`] = () => Promise.reject(new TypeError('network'));
    shown();
    say('effort');
    await waitFor(() => expect(api.asked).toHaveLength(1));
    expect(step('0.2: with effort')).toBeTruthy();
    expect(screen.getByRole('status').textContent).toBe('');
  });

  it('go from specimen to specimen, to the ends and no further', async () => {
    shown({ asked: 'K7-001' });
    const choice = () => screen.getByLabelText<HTMLSelectElement>('Specimen').value;
    expect(choice()).toBe('S-1');
    fireEvent.keyDown(document.body, { key: 'PageUp' });
    await waitFor(() =>
      expect(screen.getByRole('status').textContent).toBe('This is the first one.'),
    );
    fireEvent.keyDown(document.body, { key: 'PageDown' });
    await waitFor(() => expect(choice()).toBe('S-2'));
    expect(screen.getByRole('status').textContent).toBe('');
    fireEvent.click(screen.getByRole('button', { name: /Next specimen/ }));
    expect(screen.getByRole('status').textContent).toBe('That was the last specimen.');
    fireEvent.change(screen.getByLabelText('Specimen'), { target: { value: 'S-1' } });
    expect(screen.getByRole('status').textContent).toBe('');
  });

  it('begin at the first specimen of which not every step is said, or at the first of all', () => {
    const choice = () => screen.getByLabelText<HTMLSelectElement>('Specimen').value;
    const said = (specimen_id: string, steps: readonly number[]) =>
      steps.map((at) => ({ ...result(at, 'clear'), specimen_id, row_version: 1 }));
    shown({ results: [...said('S-1', [1, 2, 3]), ...said('S-2', [1])] });
    expect(choice()).toBe('S-2');
    cleanup();
    shown({ results: [...said('S-1', [1, 2, 3]), ...said('S-2', [1, 2, 3])] });
    expect(choice()).toBe('S-1');
    cleanup();
    shown({ asked: 'S-2' });
    expect(choice()).toBe('S-2');
  });

  it('are not there without a specimen', () => {
    shown({ specimens: [] });
    expect(screen.getByText(/Nothing to try yet/)).toBeTruthy();
  });
});

describe('function checks', () => {
  const check = (name: string) => screen.getByRole('button', { name });
  const isPressed = (name: string) => check(name).getAttribute('aria-pressed') === 'true';

  it('are corrected while what was said is still on its way', async () => {
    api.answers[`PATCH ${CHECKS}/S-1/turns`] = (body) =>
      json({ ...(body as { change: object }).change, row_version: 2 });
    shown();
    fireEvent.click(check('turns: works'));
    fireEvent.click(check('turns: fails'));
    await waitFor(() => expect(isPressed('turns: fails')).toBe(true));
    expect(sent()).toEqual([
      ['POST', CHECKS, { specimen_id: 'S-1', check: 'turns', result: 'works', note: null }],
      ['PATCH', `${CHECKS}/S-1/turns`, { version: 1, change: { result: 'fails' } }],
    ]);
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('are there still when one comes back to a specimen', async () => {
    shown();
    fireEvent.click(check('turns: works'));
    await waitFor(() => expect(isPressed('turns: works')).toBe(true));
    fireEvent.change(screen.getByLabelText('Specimen'), { target: { value: 'S-2' } });
    expect(isPressed('turns: works')).toBe(false);
    fireEvent.change(screen.getByLabelText('Specimen'), { target: { value: 'S-1' } });
    expect(isPressed('turns: works')).toBe(true);
  });

  it('take another one by its name, which stays where it is refused', async () => {
    shown();
    const name = screen.getByLabelText<HTMLInputElement>(/another check/);
    api.answers[`POST ${CHECKS}`] = () => json({ detail: 'too long a name' }, 422);
    fireEvent.change(name, { target: { value: ' snaps ' } });
    fireEvent.click(check('It works'));
    await waitFor(() => expect(screen.getByRole('alert').textContent).toBe('too long a name'));
    expect(name.value).toBe(' snaps ');
    api.answers[`POST ${CHECKS}`] = (body) => json({ ...(body as object), row_version: 1 }, 201);
    fireEvent.click(check('It works'));
    await waitFor(() => expect(isPressed('snaps: works')).toBe(true));
    expect(name.value).toBe('');
    expect(screen.queryByRole('alert')).toBeNull();
  });
});
