// @vitest-environment happy-dom
import { render } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { scaleFor, StripAxis } from './DotStrip';

const marksOf = (values: readonly number[]) => {
  const { container } = render(<StripAxis scale={scaleFor(values)} digits={0} />);
  return [...container.querySelectorAll('text')].map((mark) => ({
    text: mark.textContent,
    goesBelow: /@max-\[(\d+)px\]:hidden/.exec(mark.getAttribute('class') ?? '')?.[1] ?? null,
  }));
};

const staying = (marks: ReturnType<typeof marksOf>) =>
  marks.filter(({ goesBelow }) => goesBelow === null).map(({ text }) => text);

describe('the axis of strips', () => {
  it('keeps its ends and every other mark where there is little room', () => {
    const marks = marksOf([0, 100]);
    expect(marks.map(({ text }) => text)).toEqual(['0', '25', '50', '75', '100']);
    expect(staying(marks)).toEqual(['0', '50', '100']);
  });

  it('keeps only its ends where the marks between would stand unevenly', () => {
    const marks = marksOf([0, 60]);
    expect(marks.map(({ text }) => text)).toEqual(['0', '20', '40', '60']);
    expect(staying(marks)).toEqual(['0', '60']);
  });

  it('keeps short marks longer than long ones', () => {
    expect(marksOf([0, 60])[1]?.goesBelow).toBe('130');
    expect(marksOf([0, 100])[1]?.goesBelow).toBe('200');
  });
});
