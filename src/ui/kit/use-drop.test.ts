// @vitest-environment happy-dom
import { act, renderHook } from '@testing-library/react';
import type { DragEvent } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { useDrop } from './use-drop';

const files = ['wall.jpg'] as unknown as FileList;
const dragged = () => {
  const prevented = vi.fn();
  const event = { preventDefault: prevented, dataTransfer: { files } } as unknown as DragEvent;
  return { event, prevented };
};

describe('files dropped on an element', () => {
  it('are taken, and not opened by the browser in place of the page', () => {
    const take = vi.fn();
    const { result } = renderHook(() => useDrop(take));
    const over = dragged();
    act(() => result.current.handlers.onDragOver(over.event));
    expect(over.prevented).toHaveBeenCalledOnce();
    expect(result.current.isOver).toBe(true);
    const drop = dragged();
    act(() => result.current.handlers.onDrop(drop.event));
    expect(drop.prevented).toHaveBeenCalledOnce();
    expect(take).toHaveBeenCalledWith(files);
    expect(result.current.isOver).toBe(false);
  });

  it('that leave it again are not taken', () => {
    const take = vi.fn();
    const { result } = renderHook(() => useDrop(take));
    act(() => result.current.handlers.onDragOver(dragged().event));
    act(() => result.current.handlers.onDragLeave());
    expect(result.current.isOver).toBe(false);
    expect(take).not.toHaveBeenCalled();
  });
});
