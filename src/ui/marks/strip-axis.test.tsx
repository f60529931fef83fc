// @vitest-environment jsdom
import { render } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { scaleFor, StripAxis } from './DotStrip';

const marksOf = (values: readonly number[]) => {
  const { container } = render(<StripAxis scale={scaleFor(values)} digits={0} />);
  return [...container.querySelectorAll('text')].map((mark) => ({
    text: mark.textContent,
    isWide: mark.classList.contains('@max-[200px]:hidden'),
  }));
};

describe('the axis of strips', () => {
  it('keeps its ends and every other mark where there is little room', () => {
    const marks = marksOf([0, 100]);
    expect(marks.map(({ text }) => text)).toEqual(['0', '25', '50', '75', '100']);
    expect(marks.filter(({ isWide }) => !isWide).map(({ text }) => text)).toEqual([
      '0',
      '50',
      '100',
    ]);
  });

  it('keeps only its ends where the marks between would stand unevenly', () => {
    const marks = marksOf([0, 60]);
    expect(marks.map(({ text }) => text)).toEqual(['0', '20', '40', '60']);
    expect(marks.filter(({ isWide }) => !isWide).map(({ text }) => text)).toEqual(['0', '60']);
  });
});
