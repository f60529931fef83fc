// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { FieldInput } from './FieldInput';
import { fieldsOf } from './fields';
import { RecordTable, type TableRow } from './RecordTable';

interface Asked {
  method: string;
  path: string;
  body: unknown;
}

let asked: Asked[];
let answers: Record<string, () => Response>;
const json = (content: unknown, status = 200) => new Response(JSON.stringify(content), { status });

beforeEach(() => {
  localStorage.clear();
  asked = [];
  answers = {};
  vi.stubGlobal('fetch', (path: string, init: RequestInit) => {
    const method = init.method ?? 'GET';
    const body = typeof init.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined;
    asked.push({ method, path: path.replace('/api/v1', ''), body });
    const answer = answers[`${method} ${path.replace('/api/v1', '')}`];
    return Promise.resolve(answer ? answer() : json({ detail: 'nothing here' }, 404));
  });
});
afterEach(cleanup);

const FIELDS = fieldsOf('machines', ['name', 'kinematics', 'nozzle_mm', 'price_list', 'currency']);
const row = (machine_id: string, name: string, more: Partial<TableRow> = {}): TableRow => ({
  machine_id,
  name,
  kinematics: 'cartesian-moving-bed',
  nozzle_mm: 0.4,
  price_list: 289,
  currency: null,
  row_version: 3,
  ...more,
});
const opened = (rows = [row('a', 'Auklet'), row('g 1', 'Gannet')]) =>
  render(
    <RecordTable
      title="Machines"
      one="machine"
      path="/studies/s/rows/machines"
      keyColumns={['machine_id']}
      fields={FIELDS}
      newFields={FIELDS.slice(0, 2)}
      idColumn="machine_id"
      rows={rows}
      shown={['name', 'kinematics', 'nozzle_mm', 'currency']}
    />,
  );

describe('a table of records', () => {
  it('says values as people write them, and what is not known as not known', () => {
    opened();
    const [, first] = screen.getAllByRole('row');
    if (!first) throw new Error('no row');
    const cells = within(first)
      .getAllByRole('cell')
      .map((cell) => cell.textContent);
    expect(cells.slice(0, 4)).toEqual(['Auklet', 'cartesian moving bed', '0.4', 'not known']);
    expect(screen.getByRole('columnheader', { name: 'nozzle (mm)' })).toBeTruthy();
  });

  it('opens a row to be edited, and shows what was kept in the table', async () => {
    answers['PATCH /studies/s/rows/machines/g%201'] = () =>
      json(row('g 1', 'Gannet X24', { row_version: 4 }));
    opened();
    fireEvent.click(screen.getByRole('button', { name: 'Edit Gannet' }));
    const name = screen.getByLabelText<HTMLInputElement>(/^name/);
    const nozzle = screen.getByLabelText<HTMLInputElement>(/^nozzle/);
    expect([name.value, nozzle.value]).toEqual(['Gannet', '0.4']);
    fireEvent.change(name, { target: { value: 'Gannet X24' } });
    fireEvent.blur(name);
    await screen.findByRole('button', { name: 'Close Gannet X24' });
    expect(asked).toMatchObject([{ method: 'PATCH', path: '/studies/s/rows/machines/g%201' }]);
    expect(asked[0]?.body).toEqual({ version: 3, change: { name: 'Gannet X24' } });
  });

  it('takes a row out in the version that stands there now', async () => {
    answers['GET /studies/s/rows/machines/a'] = () => json(row('a', 'Auklet', { row_version: 9 }));
    answers['DELETE /studies/s/rows/machines/a'] = () => new Response(null, { status: 204 });
    opened();
    fireEvent.click(screen.getByRole('button', { name: 'Edit Auklet' }));
    fireEvent.click(screen.getByRole('button', { name: 'Take this machine out' }));
    await waitFor(() => expect(screen.queryByText('Auklet')).toBeNull());
    expect(asked.at(-1)).toMatchObject({ method: 'DELETE', body: { version: 9 } });
  });

  it('says why a row cannot be taken out, and keeps it', async () => {
    answers['GET /studies/s/rows/machines/a'] = () => json(row('a', 'Auklet'));
    answers['DELETE /studies/s/rows/machines/a'] = () =>
      json({ detail: '2 contenders name it.' }, 422);
    opened();
    fireEvent.click(screen.getByRole('button', { name: 'Edit Auklet' }));
    fireEvent.click(screen.getByRole('button', { name: 'Take this machine out' }));
    expect((await screen.findByText('2 contenders name it.')).getAttribute('role')).toBe('alert');
    expect(screen.getAllByText('Auklet').length).toBeGreaterThan(0);
  });

  it('says that there are none, and adds one with an id of its own', async () => {
    answers['POST /studies/s/rows/machines'] = () => {
      const sent = asked.at(-1)?.body as TableRow;
      return json({ ...row('x', 'x'), ...sent, row_version: 1 }, 201);
    };
    opened([]);
    expect(screen.getByText('None yet.')).toBeTruthy();
    const [add] = screen.getAllByRole('button', { name: 'Add machine' });
    if (add) fireEvent.click(add);
    fireEvent.change(screen.getByLabelText(/^name/), { target: { value: 'Petrel G27' } });
    const form = screen.getByLabelText(/^name/).closest('form');
    if (!form) throw new Error('no form');
    fireEvent.submit(form);
    await screen.findByRole('button', { name: 'Edit Petrel G27' });
    const sent = asked.at(-1)?.body as Record<string, unknown>;
    expect(sent.name).toBe('Petrel G27');
    expect(String(sent.machine_id)).toMatch(/^[a-z0-9][a-z0-9._-]*$/i);
  });
});

describe('a field', () => {
  const field = (name: 'name' | 'nozzle_mm' | 'price_list') =>
    FIELDS.find((one) => one.name === name) ?? FIELDS[0];
  const shown = (
    name: 'name' | 'nozzle_mm' | 'price_list',
    value: string | number | null,
    more: object = {},
  ) => {
    const onCommit = vi.fn();
    const spec = field(name);
    if (!spec) throw new Error('no field');
    render(<FieldInput field={spec} value={value} onCommit={onCommit} {...more} />);
    return { onCommit, input: screen.getByRole<HTMLInputElement>('textbox') };
  };

  it('is taken when it is left, and by Enter; a comma is a point', () => {
    const { onCommit, input } = shown('nozzle_mm', 0.4);
    fireEvent.change(input, { target: { value: '0,6' } });
    expect(onCommit).not.toHaveBeenCalled();
    fireEvent.keyDown(input, { key: 'Enter' });
    expect(onCommit).toHaveBeenLastCalledWith(0.6);
    fireEvent.change(input, { target: { value: '' } });
    fireEvent.blur(input);
    expect(onCommit).toHaveBeenLastCalledWith(null);
  });

  it('that cannot be read says so, and nothing is sent', () => {
    const { onCommit, input } = shown('price_list', 289);
    fireEvent.change(input, { target: { value: '28O' } });
    fireEvent.blur(input);
    expect(onCommit).not.toHaveBeenCalled();
    expect(input.getAttribute('aria-invalid')).toBe('true');
    const alert = screen.getByRole('alert');
    expect(input.getAttribute('aria-describedby')).toBe(alert.id);
  });

  it('that must hold a value cannot be emptied', () => {
    const { onCommit, input } = shown('name', 'Auklet');
    fireEvent.change(input, { target: { value: '  ' } });
    fireEvent.blur(input);
    expect(onCommit).not.toHaveBeenCalled();
    expect(screen.getByRole('alert').textContent).toBe('must hold a value');
  });

  it('that is left as it was is not sent', () => {
    const { onCommit, input } = shown('name', 'Auklet');
    fireEvent.blur(input);
    expect(onCommit).not.toHaveBeenCalled();
  });
});
