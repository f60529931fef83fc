import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test as base, type Page } from '@playwright/test';
import { freshDatabase } from '../support/database';
import { DEMO_STUDIES } from '../support/demo-files';
import { kill, startServer } from '../support/server';

/** A running application with the demo study in a database of its own. */
export interface Bench {
  url: string;
  /** Address of the demo study. */
  study: string;
  /** Address of the bench link. */
  link: () => string;
  stop: () => Promise<void>;
  start: () => Promise<void>;
}

export const test = base.extend<object, { bench: Bench; ownBench: string }>({
  // Tests that count what the whole workshop holds have a server to themselves: those of another name.
  ownBench: ['', { scope: 'worker', option: true }],
  bench: [
    async ({ ownBench: _ }, use) => {
      const { url: databaseUrl, drop } = await freshDatabase(DEMO_STUDIES);
      let { child, port, link } = await startServer(databaseUrl, {
        studies: DEMO_STUDIES,
      });
      const url = `http://127.0.0.1:${port}`;
      const studies = (await (await fetch(`${url}/api/v1/studies`)).json()) as {
        study_id: string;
        name: string;
      }[];
      const demo = studies.find(({ name }) => name === 'clip-bench');
      await use({
        url,
        study: `${url}/studies/${demo?.study_id}`,
        link: () => link,
        stop: () => kill(child),
        start: async () => {
          const linkPort = Number(new URL(link).port);
          ({ child, port, link } = await startServer(databaseUrl, {
            studies: DEMO_STUDIES,
            port,
            linkPort,
          }));
        },
      });
      await kill(child);
      await drop();
    },
    { scope: 'worker', timeout: 180_000 },
  ],
});

/** Opens a page and waits until its islands answer. */
export async function open(page: Page, url: string): Promise<void> {
  await page.goto(url);
  await settled(page);
}

let asked = 0;

/** Waits until the islands of the page answer, and its results are the present ones. */
export async function settled(page: Page): Promise<void> {
  // A page that shows older results while newer are made reads itself again when they are there: a
  // page that is only half there says nothing about that. Effects run a moment after the islands have
  // taken over; a page that is never idle is waited for no longer. All is asked in one question, which
  // is asked anew of the page that takes this one's place.
  asked += 1;
  await page.waitForFunction((question) => {
    const isThere =
      document.readyState === 'complete' &&
      document.querySelector('[data-stale-results]') === null &&
      document.querySelector('astro-island[ssr]') === null;
    const asking = window as unknown as { settling?: { question: number; isIdle: boolean } };
    if (isThere && asking.settling?.question !== question) {
      const settling = { question, isIdle: false };
      asking.settling = settling;
      requestIdleCallback(() => (settling.isIdle = true), { timeout: 2000 });
    }
    return isThere && asking.settling?.isIdle === true;
  }, asked);
}

/** How long a hand holds a key down, ms: many times longer than a scanner. */
export const HAND_MS = 120;

/**
 * Types a code as a scanner does, many times faster than a hand: faster than a driver of the browser
 * can be relied on to.
 */
export const scan = (page: Page, code: string): Promise<void> =>
  page.evaluate(
    (keys) => {
      for (const key of keys) {
        const target = document.activeElement ?? document.body;
        target.dispatchEvent(
          new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }),
        );
      }
    },
    [...Array.from(code), 'Enter'],
  );

/** Waits until the sliced files of the bench's study have been read. */
export async function allRead(bench: { url: string; study: string }): Promise<void> {
  const address = bench.study.replace('/studies/', '/api/v1/studies/');
  const unread = async () => {
    const files = (await (await fetch(`${address}/sliced-files`)).json()) as { state: string }[];
    return files.filter(({ state }) => state === 'waiting' || state === 'reading').length;
  };
  await base.expect.poll(unread, { timeout: 60_000 }).toBe(0);
}

/** Waits until the photos of the bench's study are laid flat: some thirty, one after another. */
export async function allLaid(bench: { study: string }): Promise<void> {
  base.setTimeout(480_000);
  const address = bench.study.replace('/studies/', '/api/v1/studies/');
  const waiting = async () => {
    const photos = (await (await fetch(`${address}/photos`)).json()) as {
      state: string;
      registration: object | null;
      isRectified: boolean;
    }[];
    return photos.filter(
      ({ state, registration, isRectified }) =>
        state === 'waiting' || (registration !== null && !isRectified),
    ).length;
  };
  await base.expect.poll(waiting, { timeout: 200_000 }).toBe(0);
}

const AXE = readFileSync(join('node_modules', 'axe-core', 'axe.min.js'), 'utf8');

interface Violation {
  id: string;
  impact: string | null;
  nodes: { html: string; failureSummary: string }[];
}

/**
 * Expects that axe finds nothing against WCAG 2.2 AA on the page.
 *
 * @param rules only these rules are looked at
 */
export async function expectAccessible(page: Page, rules?: readonly string[]): Promise<void> {
  const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];
  const runOnly = rules ? { type: 'rule', values: rules } : { type: 'tag', values: tags };
  const found = await page.evaluate(
    async ([source, asked]) => {
      // The content policy forbids added script elements; evaluation by the browser's driver is not one.
      // oxlint-disable-next-line no-eval
      (0, eval)(source);
      const { axe } = window as unknown as {
        axe: { run: (root: Document, options: object) => Promise<{ violations: Violation[] }> };
      };
      return (await axe.run(document, { runOnly: asked })).violations;
    },
    [AXE, runOnly] as const,
  );
  const said = found.map(
    ({ id, nodes }) => `${id}: ${nodes[0]?.html}\n${nodes[0]?.failureSummary}`,
  );
  expect(said).toEqual([]);
}

export { expect } from '@playwright/test';
