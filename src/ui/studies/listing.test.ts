import { describe, expect, it } from 'vitest';
import {
  filteredStudies,
  labelsOf,
  readLabels,
  titleOfCopy,
  type ListedStudy,
  type StudyFilter,
} from './listing';

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
  prints: 0,
  readings: 0,
  ...more,
});

const STUDIES = [
  study('Spoke keys', { prints: 6, question: 'Which small machine?' }),
  study('Clips', { prints: 90, labels: ['bench', 'spring'] }),
  study('Old clips', { isArchived: true }),
];

const titles = (filter: Partial<StudyFilter>) =>
  filteredStudies(STUDIES, {
    text: '',
    label: null,
    isArchived: false,
    order: 'changed',
    ...filter,
  }).map(({ title }) => title);

describe('the list of studies', () => {
  it('shows the last change first, and no archived study', () => {
    expect(titles({})).toEqual(['Spoke keys', 'Clips']);
    expect(titles({ isArchived: true })).toEqual(['Old clips']);
  });

  it('sorts by title and by prints', () => {
    expect(titles({ order: 'title' })).toEqual(['Clips', 'Spoke keys']);
    expect(titles({ order: 'prints' })).toEqual(['Clips', 'Spoke keys']);
  });

  it('searches titles, questions and labels for every word', () => {
    expect(titles({ text: 'SMALL which' })).toEqual(['Spoke keys']);
    expect(titles({ text: 'spring' })).toEqual(['Clips']);
    expect(titles({ text: 'small clips' })).toEqual([]);
  });

  it('filters by a label', () => {
    expect(titles({ label: 'bench' })).toEqual(['Clips']);
    expect(labelsOf(STUDIES)).toEqual(['bench', 'spring']);
  });

  it('reads labels that are separated by commas, each once', () => {
    expect(readLabels(' clips, farm ,, clips')).toEqual(['clips', 'farm']);
  });

  it('proposes a free title for a copy', () => {
    expect(titleOfCopy('Clips', ['Clips'])).toBe('Clips (2)');
    expect(titleOfCopy('Clips (2)', ['Clips', 'Clips (2)'])).toBe('Clips (3)');
    expect(titleOfCopy('Clips', ['Clips', 'Clips (2)', 'Clips (3)'])).toBe('Clips (4)');
  });
});
