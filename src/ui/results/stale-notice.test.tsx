// @vitest-environment happy-dom
import { act, cleanup, render } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { json, toldApi } from '../../../tests/support/told-api';
import { StaleNotice } from './StaleNotice';

const told = toldApi();
const reload = vi.fn<() => void>();
beforeEach(() => {
  vi.useFakeTimers();
  reload.mockClear();
  vi.stubGlobal('location', {
    reload,
    origin: 'http://localhost',
    toString: () => 'http://localhost/',
  });
});
afterEach(() => {
  cleanup();
  document.body.replaceChildren();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const asked = (stale: readonly string[]) => {
  told.answers['GET /studies/s/results?parts=prints%2Csurface&ref=k'] = () => json({ stale });
};
const show = () => render(<StaleNotice studyId="s" reference="k" parts={['prints', 'surface']} />);
const later = () => act(() => vi.advanceTimersByTimeAsync(1000));

describe('newer results than those on the page', () => {
  it('are shown as soon as all of them are there', async () => {
    asked(['surface']);
    show();
    await later();
    expect(reload).not.toHaveBeenCalled();
    asked([]);
    await later();
    expect(reload).toHaveBeenCalled();
  });

  it.each([
    ['a field that is typed in', '<input>'],
    ['a text that is written', '<textarea></textarea>'],
  ])('wait for %s', async (_, html) => {
    asked([]);
    document.body.innerHTML = html;
    const field = document.body.firstElementChild as HTMLElement;
    field.focus();
    show();
    field.dispatchEvent(new Event('input', { bubbles: true }));
    await later();
    expect(reload).not.toHaveBeenCalled();
    field.dispatchEvent(new Event('change', { bubbles: true }));
    await later();
    expect(reload).toHaveBeenCalled();
  });

  it('wait for nobody whose field is only chosen', async () => {
    asked([]);
    document.body.innerHTML = '<input>';
    (document.body.firstElementChild as HTMLElement).focus();
    show();
    await later();
    expect(reload).toHaveBeenCalled();
  });

  it('wait for what is opened to be read, and never bring back who leaves', async () => {
    asked([]);
    document.body.innerHTML = '<div data-drawer></div>';
    show();
    await later();
    expect(reload).not.toHaveBeenCalled();
    window.dispatchEvent(new Event('beforeunload'));
    document.querySelector('[data-drawer]')?.remove();
    await later();
    expect(reload).not.toHaveBeenCalled();
  });
});
