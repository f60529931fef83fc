import { bufferOf } from '../../files/buffers';
import {
  findAddress,
  findReportFile,
  listRevisions,
  NotFoundError,
  readFile,
  studyOfAddress,
  type Revision,
} from '../../data';
import type { App } from '../app';
import { FIGURES, markWithdrawn } from '../../files/report';
import { mayNow } from '../http/actor';
import { fileAnswer } from '../http/endpoint';
import { RequestError } from '../http/problem';

const TYPES: Readonly<Record<string, string>> = {
  css: 'text/css; charset=utf-8',
  html: 'text/html; charset=utf-8',
  jpg: 'image/jpeg',
  js: 'text/javascript; charset=utf-8',
  json: 'application/json',
  md: 'text/markdown; charset=utf-8',
  pdf: 'application/pdf',
  png: 'image/png',
  svg: 'image/svg+xml',
  woff2: 'font/woff2',
  zip: 'application/zip',
};

/** A report runs only what came with it, and asks nobody else for anything. */
const POLICY =
  "default-src 'none'; img-src 'self' data:; style-src 'self'; script-src 'self'; font-src " +
  "'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";

const NOTICE = '<div id="notice"></div>';

const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** That a report was withdrawn, and why, in words; null where it was not. */
function withdrawal({ number, withdrawn_at, withdrawn_because }: Revision): string | null {
  if (withdrawn_at === null) return null;
  return (
    `Report ${number} was withdrawn on ${withdrawn_at.toISOString().slice(0, 10)}. ` +
    `${withdrawn_because ?? ''}`
  ).trim();
}

/**
 * A file of a withdrawn revision, which says so itself: a text begins with it, a zip has a file that does; what
 * cannot be changed is not given any more. Null for a file that stands in the page, which says it.
 *
 * @throws RequestError 410
 */
async function withdrawnFile(
  revision: Revision,
  name: string,
  read: () => Promise<Buffer>,
): Promise<Uint8Array | null> {
  const words = withdrawal(revision);
  if (words === null) return null;
  if (name.endsWith('.pdf')) {
    throw new RequestError(410, `${words} Its PDF is not given any more: read the page.`);
  }
  if (name.endsWith('.md')) return Buffer.concat([Buffer.from(`> **${words}**\n\n`), await read()]);
  return name === 'report.zip' ? markWithdrawn(await read(), words) : null;
}

/** What a reader has to know before reading on: withdrawn, not published yet, or not the latest. */
function noticeOf(revision: Revision, latest: Revision | undefined): string {
  const newer =
    latest && latest.number > revision.number
      ? ` <a href="../${latest.number}/">Report ${latest.number}</a> is newer.`
      : '';
  if (revision.withdrawn_at !== null) {
    return (
      '<div id="notice" class="notice" role="alert"><b>This report was withdrawn on ' +
      `${revision.withdrawn_at.toISOString().slice(0, 10)}.</b> ` +
      `${escaped(revision.withdrawn_because ?? '')}${newer}</div>`
    );
  }
  if (revision.published_at === null) {
    return '<div id="notice" class="notice" role="status">Not published yet: only you see this.</div>';
  }
  return newer === '' ? NOTICE : `<div id="notice" class="notice" role="status">${newer}</div>`;
}

/** A file of a revision as an answer; a page carries what has to be known of it now. @throws NotFoundError */
async function answerFile(
  app: App,
  studyId: string,
  revision: Revision,
  latest: Revision | undefined,
  path: string,
  isOpen: boolean,
): Promise<Response> {
  const { db } = app;
  const name = path === '' ? 'index.html' : path;
  const file = await findReportFile(db, studyId, revision.number, name);
  if (!file) throw new NotFoundError(`The report has no ${name.slice(0, 100)}.`);
  const type = TYPES[name.split('.').at(-1) ?? ''] ?? 'application/octet-stream';
  const headers: Record<string, string> = {
    'content-type': type,
    'content-security-policy': POLICY,
    ...(!isOpen && { 'x-robots-tag': 'noindex' }),
  };
  const read = () => bufferOf(readFile(db, file.sha256));
  const marked = await withdrawnFile(revision, name, read);
  if (marked) {
    return new Response(marked as BodyInit, {
      headers: {
        ...headers,
        'cache-control': 'no-store',
        'content-disposition': `attachment; filename="withdrawn-${nameOf(revision, name)}"`,
      },
    });
  }
  if (name !== 'index.html') {
    const isAway = /\.(?:zip|pdf|md)$/.test(name);
    return fileAnswer(readFile(db, file.sha256), {
      ...headers,
      'content-length': String(file.bytes),
      'cache-control': 'private, max-age=3600',
      etag: `"${file.sha256}"`,
      ...(isAway && { 'content-disposition': `attachment; filename="${nameOf(revision, name)}"` }),
    });
  }
  const page = (await read()).toString('utf8');
  const figures = await findReportFile(db, studyId, revision.number, FIGURES);
  const hash = figures
    ? '<p class="line">SHA-256 of figures.json, which lists every file of this report: ' +
      `<code>${figures.sha256}</code></p>`
    : '';
  return new Response(
    page.replace(NOTICE, () => noticeOf(revision, latest) + hash),
    {
      headers: { ...headers, 'cache-control': 'no-store' },
    },
  );
}

const nameOf = ({ number }: Revision, name: string): string =>
  name === 'report.zip' ? `report-${number}.zip` : name.replace(/[^A-Za-z0-9._-]/g, '-');

const isReadable = (one: Revision): boolean => one.state === 'ready' && one.published_at !== null;

/** The latest revision that readers are shown: published, and not withdrawn where there is another. */
function latestOf(revisions: readonly Revision[]): Revision | undefined {
  const readable = revisions.filter(isReadable);
  return readable.find((one) => one.withdrawn_at === null) ?? readable[0];
}

/**
 * What stands at an address of a report: under its name, where it is open to all, or its secret.
 *
 * @param revision null for the latest
 * @throws NotFoundError the same for what is not there and for what is not to be seen
 */
export async function readReport(
  app: App,
  address: string,
  revision: string | null,
  path: string,
): Promise<Response> {
  const { db } = app;
  const nothing = () => new NotFoundError('There is no report at this address.');
  const studyId = /^[A-Za-z0-9_-]{3,64}$/.test(address) ? await studyOfAddress(db, address) : null;
  if (studyId === null) throw nothing();
  const revisions = await listRevisions(db, studyId);
  const latest = latestOf(revisions);
  if (revision === null) {
    if (!latest) throw nothing();
    const location = `/r/${encodeURIComponent(address)}/${latest.number}/`;
    return new Response(null, { status: 302, headers: { location, 'cache-control': 'no-store' } });
  }
  const found = revisions.find((one) => String(one.number) === revision && isReadable(one));
  if (!found) throw nothing();
  const isOpen = (await findAddress(db, studyId))?.name === address;
  return answerFile(app, studyId, found, latest, path, isOpen);
}

/** What of a report holds the study itself: who may not export it may not fetch it here either. */
const isExport = (path: string): boolean => path.endsWith('.zip');

/**
 * A file of a revision for who works on the study, published or not.
 *
 * @throws NotFoundError, RequestError 403 where the study may not be exported
 */
export async function ownReportFile(
  app: App,
  studyId: string,
  number: number,
  path: string,
): Promise<Response> {
  if (isExport(path) && !mayNow('export')) {
    throw new RequestError(403, 'You may not export this study: ask an owner.');
  }
  const revisions = await listRevisions(app.db, studyId);
  const found = revisions.find((one) => one.number === number && one.state === 'ready');
  if (!found) throw new NotFoundError(`There is no report ${number} of this study.`);
  return answerFile(app, studyId, found, latestOf(revisions), path, false);
}
