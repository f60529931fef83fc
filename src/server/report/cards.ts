import { bufferOf } from '../../files/buffers';
import * as z from 'zod';
import type { ReportModel } from '../../core/text/report';
import { cardSubjects, drawCard, type CardSubject } from '../../forms';
import { pngOf } from '../../files/report/png';
import { findReport, findReportFile, findRevision, readFile } from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';

/** Which card is asked for. */
export const cardSchema = z.object({
  subject: z.string().regex(/^(?:answer|chart|photos)\/[A-Za-z0-9._-]{1,200}$/, 'is no subject'),
  size: z.enum(['wide', 'square']),
  theme: z.enum(['light', 'dark', 'clear']),
  as: z.enum(['svg', 'png']),
});

/** A subject as it stands in an address. */
const subjectText = (subject: CardSubject): string =>
  subject.kind === 'answer' ? `answer/${subject.verdict_id}` : `${subject.kind}/${subject.id}`;

function subjectOf(text: string): CardSubject {
  const [kind, id = ''] = text.split('/');
  if (kind === 'answer') return { kind, verdict_id: id };
  return { kind: kind === 'photos' ? 'photos' : 'chart', id };
}

/** The subjects of which a revision has cards. @throws RequestError */
export async function cardsOf(
  app: App,
  studyId: string,
  number: number,
): Promise<{ subject: string; title: string }[]> {
  const { model } = await modelOf(app, studyId, number);
  return cardSubjects(model).map(({ subject, title }) => ({
    subject: subjectText(subject),
    title,
  }));
}

async function modelOf(app: App, studyId: string, number: number) {
  const found = await findReport(app.db, studyId, number);
  if (!found) throw new RequestError(404, `Report ${number} is not there, or not made yet.`);
  return found;
}

/** Draws a card of a frozen revision. @throws RequestError */
export async function drawnCard(
  app: App,
  studyId: string,
  number: number,
  { subject: text, size, theme, as }: z.infer<typeof cardSchema>,
): Promise<Response> {
  const { model } = await modelOf(app, studyId, number);
  const revision = await findRevision(app.db, studyId, number);
  if (revision.withdrawn_at !== null) {
    throw new RequestError(
      410,
      `Report ${number} was withdrawn: its cards are not given any more. ${revision.withdrawn_because ?? ''}`.trim(),
    );
  }
  const subject = subjectOf(text);
  const photos = await photosOf(app, studyId, number, model, subject);
  const svg = drawCard(model, subject, { size, theme }, (file) => photos.get(file) ?? null);
  if (svg === null) throw new RequestError(404, 'The report has no such subject.');
  const name = `${text.replace('/', '-')}-${size}-${theme}.${as}`;
  const headers = {
    'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; img-src data:",
    'content-disposition': `inline; filename="${name}"`,
    'cache-control': 'private, max-age=600',
  };
  return as === 'svg'
    ? new Response(svg, { headers: { ...headers, 'content-type': 'image/svg+xml' } })
    : new Response(new Uint8Array(await pngOf(svg)), {
        headers: { ...headers, 'content-type': 'image/png' },
      });
}

/** The pictures that a card of photos shows. */
async function photosOf(
  app: App,
  studyId: string,
  number: number,
  model: ReportModel,
  subject: CardSubject,
): Promise<Map<string, Buffer>> {
  const found = new Map<string, Buffer>();
  if (subject.kind !== 'photos') return found;
  const row = model.photos.find(({ id }) => id === subject.id);
  for (const { file } of row?.frames ?? []) {
    const kept = await findReportFile(app.db, studyId, number, file);
    if (!kept) continue;
    found.set(file, await bufferOf(readFile(app.db, kept.sha256)));
  }
  return found;
}
