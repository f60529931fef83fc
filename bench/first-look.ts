import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { createFleet } from '../tests/support/fleet';
import type { Line } from './line';
import { syntheticSlicedFile } from './toolpath';
import { takeYardstick } from './yardstick';

const BYTES = 100e6;

/**
 * What a browser takes to look into a sliced file of 100 MB before it is sent, its hash included: in a worker of the
 * built application's page, under its content policy.
 */
export async function benchFirstLook(base: string, executablePath: string): Promise<Line[]> {
  const { line, say } = takeYardstick();
  const folder = mkdtempSync(join(tmpdir(), 'vergleich-look-'));
  const browser = await chromium.launch({
    executablePath,
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--no-first-run'],
  });
  try {
    const file = join(folder, 'long.gcode');
    writeFileSync(file, syntheticSlicedFile(BYTES));
    const study = await createFleet(base, 1);
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${base}/studies/${study}/runs`);
    await page.waitForLoadState('networkidle');
    const input = page.getByLabel('Sliced files', { exact: true }).and(page.locator('input'));
    await input.setInputFiles(file);
    const [began] = await page.evaluate(() => [performance.now()]);
    await page.getByText('first look:').waitFor({ timeout: 120_000 });
    const ended = await page.evaluate(() => performance.now());
    const ms = ended - (began ?? 0);
    const rate = (BYTES / 1e3 / ms).toFixed(0);
    const what = `first look at 100 MB in the browser, with its hash (${rate} MB/s)`;
    return [line, say(what, ms, 8000)];
  } finally {
    await browser.close();
    rmSync(folder, { recursive: true, force: true });
  }
}
