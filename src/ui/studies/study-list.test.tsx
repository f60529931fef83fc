// @vitest-environment happy-dom
import { fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { StudyList } from './StudyList';
import type { ListedStudy } from './listing';

const study = (title: string, more: Partial<ListedStudy> = {}): ListedStudy => ({
  study_id: title,
  title,
  intent: 'machines',
  question: null,
  changed: '2026-11-27',
  isArchived: false,
  isDemo: false,
  labels: [],
  contenders: 2,
  prints: 3,
  readings: 0,
  ...more,
});

const ALL = { edit: true, delete: true, export: true };

const show = (studies: readonly ListedStudy[], may = ALL) =>
  render(
    <StudyList
      studies={studies}
      machine=""
      panel={null}
      may={may}
      inBin={{ studies: 0, demo: 0 }}
    />,
  );

const openMenu = (title: string) => {
  fireEvent.click(screen.getByRole('button', { name: `Actions for ${title}` }));
  return screen.getByRole('menu');
};

afterEach(() => vi.unstubAllGlobals());

it('names what a package without prints lacks at its export, and nothing at others', () => {
  show([study('Planned', { prints: 0 }), study('Printed')]);
  const exportOf = (title: string) => {
    const item = within(openMenu(title)).getByRole('menuitem', { name: 'Export package' });
    const { hint } = item.dataset;
    fireEvent.keyDown(item, { key: 'Escape' });
    return hint;
  };
  expect(exportOf('Planned')).toMatch(/can be imported here only once it holds a print/);
  expect(exportOf('Printed')).toBeUndefined();
});

it('offers a reader the export only', () => {
  show([study('Clips')], { edit: false, delete: false, export: true });
  expect(screen.queryByRole('button', { name: 'New study' })).toBeNull();
  const items = within(openMenu('Clips')).getAllByRole('menuitem');
  expect(items.map((one) => one.textContent)).toEqual(['Export package']);
});

it('walks the menu with arrow keys and returns the focus on Escape', () => {
  show([study('Clips')]);
  const menu = openMenu('Clips');
  const names = () => document.activeElement?.textContent;
  expect(names()).toBe('Duplicate …');
  fireEvent.keyDown(menu, { key: 'ArrowUp' });
  expect(names()).toBe('Delete …');
  fireEvent.keyDown(menu, { key: 'ArrowDown' });
  expect(names()).toBe('Duplicate …');
  fireEvent.keyDown(menu, { key: 'Escape' });
  expect(screen.queryByRole('menu')).toBeNull();
  expect(document.activeElement?.getAttribute('aria-label')).toBe('Actions for Clips');
});

it('proposes a title for a copy', async () => {
  vi.stubGlobal('fetch', () => Promise.resolve(Response.json([])));
  vi.stubGlobal('scrollTo', () => undefined);
  show([study('Clips'), study('Clips (2)')]);
  fireEvent.click(within(openMenu('Clips')).getByRole('menuitem', { name: 'Duplicate …' }));
  expect(screen.getByLabelText<HTMLInputElement>('Title').value).toBe('Clips (3)');
  await vi.waitFor(() => undefined);
});

it('archives at once, and takes that back with the reason where the server refuses', async () => {
  vi.stubGlobal('fetch', () =>
    Promise.resolve(Response.json({ detail: 'The disk is full.' }, { status: 507 })),
  );
  show([study('Clips'), study('Keys')]);
  fireEvent.click(within(openMenu('Clips')).getByRole('menuitem', { name: 'Archive' }));
  expect(screen.queryByText('Clips')).toBeNull();
  expect(await screen.findByText(/was not saved: The disk is full\./)).toBeTruthy();
  expect(screen.getByText('Clips')).toBeTruthy();
});
