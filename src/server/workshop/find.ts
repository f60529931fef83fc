import { isOneOf } from '../../core/model/study';
import { KINDS, ITEM_KINDS, type ItemKind } from '../../core/answers/workshop';
import { findAnything, listStudies, type FoundRow } from '../../data';
import type { App } from '../app';

/** Something that was found, and where it is. */
export interface FoundThing {
  kind: FoundRow['kind'];
  name: string;
  about: string | null;
  href: string;
}

const isItem = (kind: FoundRow['kind']): kind is ItemKind => isOneOf(ITEM_KINDS, kind);

function hrefOf({ kind, id, study_id }: FoundRow): string {
  const own = encodeURIComponent(id);
  const base = `/studies/${study_id ?? ''}`;
  if (isItem(kind)) return `/${KINDS[kind].page}/${own}`;
  switch (kind) {
    case 'study':
      return `/studies/${own}/results/glance`;
    case 'print':
      return `${base}/runs?open=${own}`;
    case 'specimen':
      return `${base}/measure?specimen=${own}`;
    case 'sliced-file':
      return `${base}/files/${id.split('/').map(encodeURIComponent).join('/')}`;
  }
}

/** Studies, things, prints, specimens and sliced files that carry a text in their name or code. */
export async function findByText(
  app: App,
  text: string,
  studyId: string | null,
): Promise<FoundThing[]> {
  const { db } = app;
  const found = await findAnything(db, text, studyId);
  const titles = new Map((await listStudies(db)).map((one) => [one.study_id, one.title]));
  return found.map((row) => {
    const study = row.study_id === null || row.kind === 'study' ? null : titles.get(row.study_id);
    const about = [row.about, row.study_id === studyId ? null : study].filter(Boolean).join(' · ');
    return { kind: row.kind, name: row.name, about: about || null, href: hrefOf(row) };
  });
}
