// @vitest-environment happy-dom
import { fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { factorsOf, flattenMeta, QuestionForm } from './QuestionForm';

const RINGING = 'photo:wall/ringing/raking-left';
const photoFigures = [
  { key: RINGING, label: 'ringing, Echo wall', unit: '%', factor: 100, group: 'Echo wall' },
];

const meta = (smallest_difference: Record<string, number>) => ({
  title: 'Clips',
  question: null,
  intent: 'machines',
  reference: null,
  description: null,
  smallest_difference,
  cost: null,
  row_version: 2,
});

afterEach(() => vi.unstubAllGlobals());

it('takes a smallest difference of a photo figure in per cent and saves it as a share', async () => {
  const before = meta({ [RINGING]: 0.07, accuracy_mm: 0.05 });
  const sent: unknown[] = [];
  vi.stubGlobal('fetch', (_: string, { body }: { body: string }) => {
    sent.push(JSON.parse(body));
    return Promise.resolve(Response.json(meta({ [RINGING]: 0.01, accuracy_mm: 0.05 })));
  });
  render(
    <QuestionForm
      path="/studies/s"
      values={flattenMeta(before, factorsOf(photoFigures))}
      version={1}
      contenders={[]}
      photoFigures={photoFigures}
      proposals={[]}
    />,
  );
  const field = screen.getByLabelText<HTMLInputElement>(/ringing, Echo wall/);
  expect(field.value).toBe('7');
  fireEvent.change(field, { target: { value: '1' } });
  fireEvent.blur(field);
  await vi.waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]).toMatchObject({
    change: { smallest_difference: { [RINGING]: 0.01, accuracy_mm: 0.05 } },
  });
  await vi.waitFor(() => expect(field.value).toBe('1'));
});
