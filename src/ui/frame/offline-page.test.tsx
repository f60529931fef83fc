// @vitest-environment happy-dom
import { cleanup, render } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { Offline } from './Offline';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  Reflect.deleteProperty(navigator, 'serviceWorker');
});

it('tells of what a page is made of, also of what was on its way when somebody was there to keep it', () => {
  const told: string[][] = [];
  const worker = Object.assign(new EventTarget(), {
    controller: { postMessage: ({ addresses }: { addresses: string[] }) => told.push(addresses) },
    register: () => Promise.resolve(),
  });
  Object.defineProperty(navigator, 'serviceWorker', { value: worker, configurable: true });
  let come: (...names: string[]) => void = () => undefined;
  const observed: object[] = [];
  vi.stubGlobal(
    'PerformanceObserver',
    class {
      constructor(heard: (list: { getEntries: () => { name: string }[] }) => void) {
        come = (...names) => heard({ getEntries: () => names.map((name) => ({ name })) });
      }
      observe = (options: object) => observed.push(options);
      disconnect = () => undefined;
    },
  );
  render(<Offline build="b" />);
  expect([told, observed]).toEqual([[], []]);
  worker.dispatchEvent(new Event('message'));
  expect(told).toEqual([[location.href]]);
  expect(observed).toEqual([{ type: 'resource', buffered: true }]);
  come('http://h/_astro/a.js', 'http://h/api/v1/studies');
  come('http://h/api/v1/studies');
  come('http://h/_astro/late.js');
  expect(told.slice(1)).toEqual([['http://h/_astro/a.js'], ['http://h/_astro/late.js']]);
});
