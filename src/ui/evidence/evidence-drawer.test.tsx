// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import { json, toldApi } from '../../../tests/support/told-api';
import { EvidenceDrawer } from './EvidenceDrawer';

const api = toldApi();
afterEach(cleanup);

const EVIDENCE = {
  title: 'Mean deviation',
  sentence: 'It is 0.02 mm.',
  formula: 'mean of |d|',
  tables: [],
  notes: [],
  isNewer: false,
};

/** A page with a figure, looked at with one's own reference or the study's. */
async function opened(
  isOwnReference: boolean,
  figure = 'accuracy:A-stock:mae_mm',
  tables: object[] = [],
) {
  api.answers[`GET /studies/s/evidence?figure=${encodeURIComponent(figure)}&revision=3&ref=R`] =
    () => json({ ...EVIDENCE, tables });
  render(
    <>
      <button type="button" data-figure={figure}>
        0.02
      </button>
      <EvidenceDrawer studyId="s" reference="R" isOwnReference={isOwnReference} revision="3" />
    </>,
  );
  fireEvent.click(screen.getByText('0.02'));
  await screen.findByText('It is 0.02 mm.');
}

describe('the evidence of a figure', () => {
  it('is picked for the report where it is compared with the study’s own reference', async () => {
    await opened(true);
    const use = screen.getByRole('button', { name: 'Use in report' });
    act(() => use.click());
    await screen.findByRole('button', { name: 'Picked for the report' });
  });

  it('is not where the reader has chosen another reference, or a report has no such figure', async () => {
    await opened(false);
    expect(screen.queryByRole('button', { name: 'Use in report' })).toBeNull();
    cleanup();
    await opened(true, 'noise/A-stock');
    expect(screen.queryByRole('button', { name: 'Use in report' })).toBeNull();
  });

  it('says the column of every cell, for where its rows are told in lines', async () => {
    const tables = [
      ['print', 'MAE mm'],
      ['specimen', 'nominal mm', 'mean mm', 'deviation mm', 'u mm'],
    ].map((labels) => ({
      title: labels.join(' '),
      more: 0,
      rows: [labels.map((_, at) => String(at))],
      columns: labels.map((label) => ({ label, isFigure: true, isList: false })),
    }));
    await opened(true, 'accuracy:A-stock:mae_mm', tables);
    const [few, many] = screen.getAllByRole('table');
    expect(few?.className).not.toContain('in-lines');
    expect(many?.className).toContain('in-lines');
    const said = [...(many?.querySelectorAll('td') ?? [])].map((cell) => cell.dataset.label);
    expect(said).toEqual(['specimen', 'nominal mm', 'mean mm', 'deviation mm', 'u mm']);
  });

  it('gives the focus back to its figure when it is closed', async () => {
    await opened(true);
    fireEvent.keyDown(document.body, { key: 'Escape' });
    fireEvent.click(screen.getByRole('button', { name: /close/i }));
    expect(document.activeElement?.textContent).toBe('0.02');
    expect(screen.queryByText('It is 0.02 mm.')).toBeNull();
  });
});
