// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { emptyOutbox } from '../../../../tests/support/outbox';
import { json, toldApi } from '../../../../tests/support/told-api';
import { EndPrint } from './EndPrint';

emptyOutbox();
const api = toldApi();
afterEach(cleanup);

interface Sent {
  print: object;
  specimens: {
    code?: string;
    copy: number;
    plate_x_mm: number | null;
    plate_y_mm: number | null;
  }[];
}
const PRINTS = 'POST /studies/u/prints';
const onEnded = vi.fn();

beforeEach(() => {
  onEnded.mockClear();
  api.answers[PRINTS] = (body) => json({ ...(body as Sent).print, row_version: 1 }, 201);
});

const shown = (outcome: string, more: Partial<Parameters<typeof EndPrint>[0]> = {}) =>
  render(
    <EndPrint
      studyId="u"
      print={{ print_id: 'P-1', contender_id: 'A', outcome, row_version: 4 }}
      fields={[]}
      places={[
        [-20, 5],
        [20, 5],
      ]}
      codes={['K7-008', 'K7-009']}
      onEnded={onEnded}
      onCancel={() => undefined}
      {...more}
    />,
  );
const parts = () => screen.getByLabelText<HTMLInputElement>(/parts that came off the plate/);
const keep = () => fireEvent.click(screen.getByRole('button', { name: 'Save print' }));
const sent = () => api.asked.map(({ body }) => body as Sent);

describe('the end of a print', () => {
  it('tells which stickers are free, lets the server give them, and says where the mesh lays each part', async () => {
    api.answers[PRINTS] = (body) =>
      json(
        {
          ...(body as Sent).print,
          row_version: 1,
          specimens: [{ specimen_id: 's', code: 'K7-011' }],
        },
        201,
      );
    shown('success');
    expect(parts().value).toBe('2');
    fireEvent.change(parts(), { target: { value: '3' } });
    expect(screen.getByText('stickers from K7-010 on, as free when you save')).toBeTruthy();
    keep();
    await waitFor(() => expect(onEnded).toHaveBeenCalledOnce());
    const [{ print, specimens } = { print: {}, specimens: [] }] = sent();
    expect(print).toEqual({ print_id: 'P-1', contender_id: 'A', outcome: 'success' });
    expect(specimens.map(({ code, copy, plate_x_mm }) => [code, copy, plate_x_mm])).toEqual([
      [undefined, 1, -20],
      [undefined, 2, 20],
      [undefined, 3, null],
    ]);
    expect(onEnded.mock.calls[0]?.[1]).toEqual(['K7-011']);
  });

  it('has no parts where it failed, whatever stands in their field', async () => {
    shown('fail-other');
    fireEvent.change(parts(), { target: { value: 'none' } });
    keep();
    await waitFor(() => expect(onEnded).toHaveBeenCalledOnce());
    expect(sent()[0]?.specimens).toEqual([]);
  });

  it.each(['two', '', '-1', '2.5', '501'])(
    'asks how many parts there are where that is no number of them: “%s”',
    async (typed) => {
      shown('rescued');
      fireEvent.change(parts(), { target: { value: typed } });
      expect(parts().getAttribute('aria-invalid')).toBe('true');
      keep();
      await waitFor(() =>
        expect(screen.getByRole('alert').textContent).toBe(
          'Say how many parts came off the plate: a whole number, 500 at most.',
        ),
      );
      expect(api.asked).toEqual([]);
      fireEvent.change(parts(), { target: { value: '500' } });
      keep();
      await waitFor(() => expect(onEnded).toHaveBeenCalledOnce());
      expect(new Set(sent()[0]?.specimens.map(({ copy }) => copy)).size).toBe(500);
    },
  );

  it('is told what is refused, and is kept without a connection', async () => {
    shown('success');
    api.answers[PRINTS] = () => json({ detail: 'it has ended already' }, 409);
    keep();
    await waitFor(() => expect(screen.getByRole('alert').textContent).toBe('it has ended already'));
    expect(onEnded).not.toHaveBeenCalled();
    api.answers[PRINTS] = () => Promise.reject(new TypeError('network'));
    keep();
    await waitFor(() =>
      expect(onEnded).toHaveBeenCalledWith(
        { print_id: 'P-1', contender_id: 'A', outcome: 'success', row_version: 1 },
        [],
      ),
    );
  });
});
