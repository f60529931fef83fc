/**
 * Where a figure stands in the results: the section, what the section is listed by (a contender, a machine, a
 * panel, a response of the analysis of variance), and a path with dots into what it says of that.
 */
export interface FigureAddress {
  section: string;
  who: string;
  key: string;
}

/** An address as it is written, `section:who:key`; its key may hold colons. */
export const addressOf = (section: string, who: string, key: string): string =>
  `${section}:${who}:${key}`;

/** Reads an address; null where a part of it is missing. */
export function parseAddress(text: string): FigureAddress | null {
  const [section = '', who = '', ...rest] = text.split(':');
  const key = rest.join(':');
  return section === '' || who === '' || key === '' ? null : { section, who, key };
}

/** What a sentence says that it rests on, word by word. */
export const restsOn = (evidence: string | null): string[] =>
  (evidence ?? '').split(/\s+/).filter((word) => word !== '');

/** The addresses in the evidence of a sentence; what is no address is left out. */
export const addressesIn = (evidence: string | null): string[] =>
  restsOn(evidence).filter((word) => /^[a-z_]+:[^:\s]+:\S+$/.test(word));
