import { WrongInputError } from '../../core/model/faults';
import { buffersOf } from '../buffers';
import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { parse, type HTMLElement } from 'node-html-parser';
import * as z from 'zod';
import {
  buildReport,
  EDITION,
  openReport,
  verifyFigures,
  type Departure,
  type ReportModel,
  type RevisionFigures,
  type Verification,
} from '../../core/text/report';
import { groupBy, TABLE_NAMES, isTableName } from '../../core/model/study';
import { openPackage, PackageError, type PackageFiles } from '../packages';
import { withFolder } from '../temporary';
import { FIGURES, makerHash, UNLISTED } from './seal';
import { WITHDRAWN_FILE } from './withdrawn';
import { computeFrozen, FrozenDataError, type ComputedStudy } from './model';

/** What was found, and what could not be compared. */
export type ReportVerification = Verification & { notes: string[] };

/** The file is no report that can be checked; the message says what is wrong with it. */
export class ReportError extends WrongInputError {
  override name = 'ReportError';
}

const MANY = 100_000;
const number = z.number().nullable();
const text = z.string().max(20_000);

/** What changed since the revision before is drawn as it is stated: it must have the shape that is drawn. */
function isSince(value: unknown): boolean {
  if (value === null) return true;
  const row = z.looseObject({ label: text.optional(), then: z.unknown(), now: z.unknown() });
  const shape = z.looseObject({
    from: z.number().int(),
    figures: z.array(row).max(MANY),
    words: z.array(row).max(MANY),
    data: z.array(row).max(MANY),
  });
  return shape.safeParse(value).success;
}

const figuresSchema = z.object({
  format: z.literal(1),
  edition: z.number().int(),
  title: text,
  number: z.number().int(),
  frozen_at: text,
  evaluation: z.object({ alpha: z.number(), seed: z.number(), reference: text.nullable() }),
  data: z.object({
    sha256: text,
    bytes: z.number(),
    tables: z.record(text, z.number()),
    files: z.record(text, text),
  }),
  figures: z
    .array(
      z.object({
        address: text,
        label: text,
        printed: text,
        value: number,
        low: number,
        high: number,
        word: text.nullable(),
        style: z.enum(['value', 'signed', 'size', 'ratio', 'ends', 'word']),
        factor: z.number(),
        digits: z.number().int().min(0).max(20),
        unit: text,
      }),
    )
    .max(MANY),
  sentences: z.array(z.object({ name: text, text })).max(MANY),
  words: z
    .array(z.object({ verdict_id: text, kind: text, text, rests_on: z.array(text).max(1000) }))
    .max(MANY),
  since: z.custom<ReportModel['since']>((value) => isSince(value)).optional(),
  files: z.record(text, text).optional(),
  maker: text.optional(),
});

/**
 * Computes a report's data anew and compares everything that it states.
 *
 * @param path a report, as a zip or unpacked in a folder
 * @throws ReportError
 */
export async function verifyReport(path: string): Promise<ReportVerification> {
  const files = await openPackage(path).catch(asReportError);
  try {
    const at = (name: string) => {
      const found = files.paths.filter((one) => one === name || one.endsWith(`/${name}`));
      const [first] = found.sort((a, b) => a.length - b.length);
      if (first === undefined) throw new ReportError(`${name} is not in it: it is no report`);
      return first;
    };
    const stated = readFigures(await files.read(at('figures.json')).catch(asReportError));
    const page = await files.read(at('index.html')).catch(asReportError);
    const base = at(FIGURES).slice(0, -FIGURES.length);
    return await withFolder('verify', async (folder) => {
      const data = join(folder, 'data.zip');
      await pipeline(await files.stream(at('data.zip')), createWriteStream(data)).catch(
        (error: unknown) => {
          throw new ReportError(`data.zip is damaged: ${reason(error)}`);
        },
      );
      const report: OpenedReport = { files, base, folder };
      return await verifyData(stated, data, new TextDecoder().decode(page), report);
    });
  } finally {
    await files.close();
  }
}

const reason = (error: unknown): string => (error instanceof Error ? error.message : 'unknown');

function asReportError(error: unknown): never {
  throw error instanceof PackageError ? new ReportError(error.message) : error;
}

function readFigures(bytes: Uint8Array): RevisionFigures {
  let parsed: unknown;
  try {
    parsed = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch (error) {
    throw new ReportError(`figures.json is not JSON: ${reason(error)}`);
  }
  const found = figuresSchema.safeParse(parsed);
  if (found.success) return found.data;
  const [issue] = found.error.issues;
  throw new ReportError(`figures.json: ${issue?.path.join('.') ?? ''} ${issue?.message ?? ''}`);
}

async function verifyData(
  stated: RevisionFigures,
  data: string,
  page: string,
  report: OpenedReport,
): Promise<ReportVerification> {
  const { alpha, seed } = stated.evaluation;
  const computed = await computeFrozen(data, { alpha, seed }).catch((error: unknown) => {
    if (error instanceof PackageError || error instanceof FrozenDataError) {
      throw new ReportError(`data.zip: ${error.message}`);
    }
    throw error;
  });
  const { study, results, drawings } = computed;
  const context = openReport(study, results);
  const { number, frozen_at, data: facts } = stated;
  const model = buildReport(context, { number, frozen_at, data: facts, drawings, since: null });
  const { figures, follow, departures } = verifyFigures(stated, context, model);
  const root = parse(page);
  const isOwn = stated.edition === EDITION;
  const isOurs = isOwn && stated.maker === makerHash();
  return {
    figures,
    follow,
    departures: [
      ...departures,
      ...headDepartures(stated, computed, root),
      ...(await dataDepartures(stated, data, computed)),
      ...pageDepartures(stated, root),
      ...(isOwn ? textDepartures(root, parse(await pageAnew(model))) : []),
      ...(await listedDepartures(stated, report)),
      ...(isOurs ? await madeDepartures({ ...model, since: stated.since ?? null }, report) : []),
    ],
    notes: [
      ...(isOwn
        ? []
        : ['it is of another edition: its figures were compared, the text of its page was not']),
      ...(stated.files === undefined
        ? ['it lists no files: only figures and words were compared']
        : isOurs
          ? []
          : [
              'another version of the program made it: its files were compared by the hashes that it lists',
            ]),
      `SHA-256 of figures.json ${await hashIn(report, FIGURES)}: compare it with the one at the report’s address`,
    ],
  };
}

/** A report as it was opened, and a folder for what is made again. */
interface OpenedReport {
  files: PackageFiles;
  /** In which folder of the package it lies. */
  base: string;
  folder: string;
}

async function hashIn({ files, base }: OpenedReport, path: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of buffersOf(await files.stream(base + path))) hash.update(chunk);
  return hash.digest('hex');
}

/** The PDF is a form of its own: a zip does not hold it. */
const APART: ReadonlySet<string> = new Set(['report.pdf']);

/** Whether every file is the one that is listed, and no file is missing or more. */
async function listedDepartures(
  { files: listed, edition }: RevisionFigures,
  report: OpenedReport,
): Promise<Departure[]> {
  const file = (where: string, stated: string, found: string): Departure => ({
    what: 'file',
    where,
    stated,
    found,
  });
  if (listed === undefined) {
    // Reports of this edition list their files: one that does not was changed.
    return edition >= EDITION ? [file(FIGURES, 'lists no files', 'a report that must')] : [];
  }
  const there = report.files.paths
    .filter((path) => path.startsWith(report.base))
    .map((path) => path.slice(report.base.length))
    .filter((path) => !UNLISTED.has(path) && path !== WITHDRAWN_FILE);
  const found: Departure[] = [];
  for (const path of there.sort()) {
    const own = listed[path];
    if (own === undefined) {
      found.push(file(path, 'not listed', 'a file that does not belong to it'));
      continue;
    }
    const hash = await hashIn(report, path);
    if (hash !== own) found.push(file(path, `SHA-256 ${own}`, `SHA-256 ${hash}`));
  }
  const has = new Set(there);
  const missing = Object.keys(listed).filter((path) => !has.has(path) && !APART.has(path));
  return [
    ...found,
    ...missing.sort().map((path) => file(path, `SHA-256 ${listed[path] ?? ''}`, 'no such file')),
  ];
}

/**
 * Makes page, Markdown, style, script, type, drawings and cards again and compares every byte: hidden elements,
 * attributes and scripts are found as figures are. Pictures of photos are compared by their hashes alone.
 */
async function madeDepartures(model: ReportModel, report: OpenedReport): Promise<Departure[]> {
  const { writeCards, writePage } = await import('./forms');
  const folder = join(report.folder, 'made');
  await mkdir(folder, { recursive: true });
  const plain = { hasPictures: false };
  const made = [
    ...(await writePage(folder, model, plain)),
    ...(await writeCards(folder, model, plain)),
  ];
  const found: Departure[] = [];
  const there = new Set(report.files.paths);
  for (const path of made) {
    if (!there.has(report.base + path)) {
      found.push({ what: 'file', where: path, stated: 'not there', found: 'made from the data' });
      continue;
    }
    const [own, other] = [
      await report.files.read(report.base + path),
      await readFile(join(folder, path)),
    ];
    if (Buffer.compare(Buffer.from(own), other) === 0) continue;
    found.push({ what: 'file', where: path, ...firstDifference(Buffer.from(own), other) });
  }
  return found;
}

/** How far two files are the same, and how each goes on. */
function firstDifference(own: Buffer, made: Buffer): Pick<Departure, 'stated' | 'found'> {
  let at = 0;
  while (at < own.length && at < made.length && own[at] === made[at]) at += 1;
  const around = (bytes: Buffer) =>
    `… ${bytes
      .subarray(Math.max(0, at - 20), at + 60)
      .toString('utf8')
      .replace(/\s+/g, ' ')} … (byte ${at + 1})`;
  return { stated: around(own), found: `made again from the data: ${around(made)}` };
}

/** Whether the data are those that were frozen, file by file and table by table. */
async function dataDepartures(
  { data: stated }: RevisionFigures,
  path: string,
  { files, study }: ComputedStudy,
): Promise<Departure[]> {
  const hash = createHash('sha256');
  let bytes = 0;
  for await (const chunk of buffersOf(createReadStream(path))) {
    hash.update(chunk);
    bytes += chunk.length;
  }
  type Fact = string | number | undefined;
  const said = (fact: Fact) => String(fact ?? 'not there');
  const same = (where: string, own: Fact, found: Fact): Departure[] =>
    own === found ? [] : [{ what: 'data', where, stated: said(own), found: said(found) }];
  const paths = new Set([...Object.keys(files), ...Object.keys(stated.files)]);
  const tables = new Set([...TABLE_NAMES, ...Object.keys(stated.tables)]);
  return [
    ...same('data.zip', `SHA-256 ${stated.sha256}`, `SHA-256 ${hash.digest('hex')}`),
    ...same('bytes of data.zip', stated.bytes, bytes),
    ...[...paths].sort().flatMap((one) => same(`data.zip/${one}`, stated.files[one], files[one])),
    ...[...tables].flatMap((one) =>
      same(
        `rows of ${one}`,
        stated.tables[one],
        isTableName(one) ? study.tables[one].length : undefined,
      ),
    ),
  ];
}

/** Whether what stands over the figures is what data and page say. */
function headDepartures(
  { title, number, frozen_at, edition, evaluation }: RevisionFigures,
  { study, results }: ComputedStudy,
  root: HTMLElement,
): Departure[] {
  const line = root.querySelector('header .line')?.text ?? '';
  const shown = /report (\d+) of/.exec(line)?.[1] ?? 'none';
  const facts: readonly (readonly [string, string, string])[] = [
    ['title', title, study.meta.title],
    ['reference', String(evaluation.reference), String(results.study.reference)],
    ['number', String(number), shown],
    ['frozen_at', frozen_at, root.querySelector('header time')?.getAttribute('datetime') ?? 'none'],
    // What this program does not know it cannot compare.
    ['edition', String(edition), String(Math.min(edition, EDITION))],
  ];
  return facts.flatMap(([where, stated, found]): Departure[] =>
    stated === found ? [] : [{ what: 'head', where, stated, found }],
  );
}

/** Whether what the page prints is what is stated. */
function pageDepartures(stated: RevisionFigures, root: HTMLElement): Departure[] {
  const known = new Map<string, Set<string>>();
  for (const { address, printed } of stated.figures) {
    known.set(address, (known.get(address) ?? new Set()).add(printed));
  }
  const figures = root.querySelectorAll('data.figure').flatMap((element): Departure[] => {
    const address = element.getAttribute('value') ?? '';
    const printed = element.text.trim();
    if (known.get(address)?.has(printed)) return [];
    const right = [...(known.get(address) ?? [])].join(' or ');
    return [{ what: 'page', where: address, stated: printed, found: right || 'no such figure' }];
  });
  const hash = root.querySelector('code.hash')?.text.trim();
  if (hash === undefined || hash === stated.data.sha256) return figures;
  return [...figures, { what: 'page', where: 'SHA-256', stated: hash, found: stated.data.sha256 }];
}

/** More lines than this are counted. */
const MOST_LINES = 10;

/** Whether the page says what a page of these data says, line by line; what changed since is its own. */
function textDepartures(page: HTMLElement, anew: HTMLElement): Departure[] {
  const [stated, found] = [linesOf(page), linesOf(anew)];
  const inFound = counted(found);
  const inStated = counted(stated);
  const added = stated.filter((line) => take(inFound, line));
  const gone = found.filter((line) => take(inStated, line));
  const all = Array.from({ length: Math.max(added.length, gone.length) }, (_, at): Departure => ({
    what: 'page',
    where: 'its text',
    stated: added[at] ?? 'not there',
    found: gone[at] ?? 'not there',
  }));
  const more = all.length - MOST_LINES;
  return more > 0
    ? [
        ...all.slice(0, MOST_LINES),
        { what: 'page', where: 'its text', stated: `${more} more lines`, found: 'others' },
      ]
    : all;
}

/** What a page says, line by line. */
function linesOf(root: HTMLElement): string[] {
  root.querySelector('#changes')?.remove();
  const parts = [
    root.querySelector('h1'),
    root.querySelector('.question'),
    root.querySelector('main'),
  ];
  return parts.flatMap((part) =>
    (part?.structuredText ?? '')
      .split('\n')
      .map((line) => line.replace(/\s+/g, ' ').trim())
      .filter((line) => line !== ''),
  );
}

const counted = (lines: readonly string[]): Map<string, number> =>
  new Map([...groupBy(lines, (line) => line)].map(([line, own]) => [line, own.length]));

/** Takes a line out of a count; whether there was none left. */
function take(counts: Map<string, number>, line: string): boolean {
  const left = counts.get(line) ?? 0;
  counts.set(line, left - 1);
  return left <= 0;
}

/** The page as this edition makes it; what draws it is read only then. */
async function pageAnew(model: ReportModel): Promise<string> {
  const { pageOf } = await import('../../forms');
  return pageOf(model);
}
