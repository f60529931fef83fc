import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
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
} from '../../core/report';
import { groupBy, TABLE_NAMES, type TableName } from '../../core/study';
import { openPackage, PackageError } from '../packages';
import { withFolder } from '../temporary';
import { computeFrozen, FrozenDataError, type ComputedStudy } from './model';

/** What was found, and what could not be compared. */
export type ReportVerification = Verification & { notes: string[] };

/** The file is no report that can be checked; the message says what is wrong with it. */
export class ReportError extends Error {
  override name = 'ReportError';
}

const MANY = 100_000;
const number = z.number().nullable();
const text = z.string().max(20_000);

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
        ...{ value: number, low: number, high: number, word: text.nullable() },
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
    return await withFolder('verify', async (folder) => {
      const data = join(folder, 'data.zip');
      await pipeline(await files.stream(at('data.zip')), createWriteStream(data)).catch(
        (error: unknown) => {
          throw new ReportError(`data.zip is damaged: ${reason(error)}`);
        },
      );
      return await verifyData(stated, data, new TextDecoder().decode(page));
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
  return {
    ...{ figures, follow },
    departures: [
      ...departures,
      ...headDepartures(stated, computed, root),
      ...(await dataDepartures(stated, data, computed)),
      ...pageDepartures(stated, root),
      ...(isOwn ? textDepartures(root, parse(await pageAnew(model))) : []),
    ],
    notes: isOwn
      ? []
      : ['it is of another edition: its figures were compared, the text of its page was not'],
  };
}

/** Whether the data are those that were frozen, file by file and table by table. */
async function dataDepartures(
  { data: stated }: RevisionFigures,
  path: string,
  { files, study }: ComputedStudy,
): Promise<Departure[]> {
  const hash = createHash('sha256');
  let bytes = 0;
  for await (const chunk of createReadStream(path)) {
    hash.update(chunk as Buffer);
    bytes += (chunk as Buffer).length;
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
      same(`rows of ${one}`, stated.tables[one], study.tables[one as TableName]?.length),
    ),
  ];
} // prettier-ignore

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
    ...{ what: 'page', where: 'its text' },
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
