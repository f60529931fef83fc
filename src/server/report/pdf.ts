import { existsSync } from 'node:fs';
import { readFile, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { pathToFileURL } from 'node:url';

/** Where Debian puts the browser that prints. */
const BROWSERS = [
  '/usr/bin/chromium-headless-shell',
  '/usr/bin/chromium',
  '/usr/lib/chromium/chromium',
];

/** Printing takes seconds; a page that does not end is given up. */
const PATIENCE_MS = 60_000;

/** The browser that prints; null where there is none. */
export const findBrowser = (): string | null => {
  const asked = process.env.CHROMIUM;
  if (asked !== undefined && asked !== '') return existsSync(asked) ? asked : null;
  return BROWSERS.find((path) => existsSync(path)) ?? null;
};

/** The page as it is printed, beside the one that is stored. */
const PRINTED = 'printed.html';

/**
 * The page with its links within it and to addresses only: a link to a file beside it would name a folder of this
 * computer, and lead nowhere.
 */
export const withoutFileLinks = (html: string): string =>
  html.replace(/(<a\b[^>]*?)\s+href="(?!#|https?:\/\/|mailto:)[^"]*"/g, '$1');

const FOOTER =
  '<div style="width:100%;font:8px sans-serif;color:#55636f;padding:0 ' +
  '15mm;display:flex;justify-content:space-between"><span class="title"></span><span><span ' +
  'class="pageNumber"></span> / <span class="totalPages"></span></span></div>';

/**
 * Prints the page of a report from its folder: tagged, with an outline and page numbers, without
 * running any script and without any network.
 *
 * @param path where the PDF goes
 */
export async function printPdf(folder: string, path: string, browser: string): Promise<void> {
  // What drives the browser is read when there is something to print: it is large.
  const { chromium } = await import('playwright-core');
  // Its profile lies with what is made, and goes with it.
  const context = await chromium.launchPersistentContext(join(dirname(path), 'browser'), {
    executablePath: browser,
    timeout: PATIENCE_MS,
    // Signals are the server's; the browser goes with it, however it ends.
    handleSIGINT: false,
    handleSIGTERM: false,
    handleSIGHUP: false,
    javaScriptEnabled: false,
    offline: true,
    // Root may not use the sandbox; what is printed is our own page, without scripts and network.
    args: ['--disable-gpu', ...(process.getuid?.() === 0 ? ['--no-sandbox'] : [])],
  });
  try {
    const page = await context.newPage();
    const file = join(folder, PRINTED);
    await writeFile(file, withoutFileLinks(await readFile(join(folder, 'index.html'), 'utf8')));
    await page.goto(pathToFileURL(file).href, { timeout: PATIENCE_MS });
    await page.pdf({
      path,
      format: 'A4',
      tagged: true,
      outline: true,
      preferCSSPageSize: false,
      displayHeaderFooter: true,
      headerTemplate: '<span></span>',
      footerTemplate: FOOTER,
      margin: { top: '16mm', bottom: '18mm', left: '15mm', right: '15mm' },
    });
  } finally {
    await rm(join(folder, PRINTED), { force: true });
    await context.close();
  }
}
