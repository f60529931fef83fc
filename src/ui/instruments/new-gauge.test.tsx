// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, it } from 'vitest';
import { json, toldApi } from '../../../tests/support/told-api';
import { NewGauge } from './NewGauge';

const api = toldApi();
afterEach(cleanup);

const specimens = (artefact: string, count: number) =>
  Array.from({ length: count }, (_, at) => ({
    id: `${artefact}-${at}`,
    code: `K-${at}`,
    artefact,
  }));

it('a gauge study is planned of the dimension that was chosen, over parts spread over all', async () => {
  api.answers['POST /studies/u/rows/gauge_plans'] = () => json({}, 201);
  render(
    <NewGauge
      studyId="u"
      instrumentId="caliper"
      dimensions={[
        { key: 'block/x1', name: 'Block: x1' },
        { key: 'spire/z2', name: 'Spire: z2' },
      ]}
      specimens={[...specimens('block', 3), ...specimens('spire', 10)]}
    />,
  );
  const dimension = screen.getByLabelText<HTMLSelectElement>('dimension');
  expect(dimension.value).toBe('block/x1');
  fireEvent.change(dimension, { target: { value: 'spire/z2' } });
  // The field stays the one that has the focus.
  expect(screen.getByLabelText('dimension')).toBe(dimension);
  expect(dimension.value).toBe('spire/z2');
  const form = screen.getByRole('form', { name: 'New gauge study' });
  fireEvent.submit(form);
  expect(screen.getByText('At least two people, by their initials.')).toBeTruthy();
  expect(api.asked).toEqual([]);
  fireEvent.change(screen.getByLabelText(/^people|operators|by whom/i), {
    target: { value: 'KM, JT' },
  });
  fireEvent.submit(form);
  await waitFor(() => expect(api.asked).toHaveLength(1));
  expect(api.asked[0]?.body).toMatchObject({
    artefact_id: 'spire',
    dimension_id: 'z2',
    specimens: 'spire-0 spire-2 spire-4 spire-6 spire-8',
    operators: 'KM JT',
    trials: 3,
  });
});
