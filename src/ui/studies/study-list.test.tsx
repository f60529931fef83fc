// @vitest-environment happy-dom
import { render, screen, within } from '@testing-library/react';
import { expect, it } from 'vitest';
import { StudyList, type ListedStudy } from './StudyList';

const study = (title: string, prints: number): ListedStudy => ({
  study_id: title,
  title,
  intent: 'machines',
  question: null,
  changed: '2026-11-27',
  contenders: 2,
  prints,
  readings: 0,
});

it('a package that cannot be imported yet says so at its export, and no other does', () => {
  const studies = [study('Planned', 0), study('Printed', 3)];
  render(
    <StudyList studies={studies} machine="" may={{ delete: false, export: true }} inBin={0} />,
  );
  const exportOf = (title: string) => {
    const item = screen.getByText(title).closest('li');
    return within(item as HTMLElement).getByRole('link', { name: 'Export' }).dataset.hint;
  };
  expect(exportOf('Planned')).toMatch(/can be imported here only once it holds a print/);
  expect(exportOf('Printed')).toBeUndefined();
});
