import type { Right } from '../../core/model/access';
import { isOneOf, type TableName, keysOf } from '../../core/model/study';

/** What is wanted of who asks: a right, or nothing where everybody may come that far. */
export type Wanted = Right | 'nothing';
type Params = Readonly<Record<string, string | undefined>>;
type Rule = Wanted | ((params: Params) => Wanted);
type Rules = Readonly<Partial<Record<'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE', Rule>>>;

/** The tables that are written at the bench: operators add to them, and correct what is theirs. */
const BENCH_TABLES: ReadonlySet<string> = new Set<TableName>([
  'prints',
  'open_prints',
  'incidents',
  'specimens',
  'readings',
  'unmeasured',
  'zero_checks',
  'ladder_results',
  'function_results',
  'inspections',
  'findings',
  'aftercare',
  'noise',
  'setup_steps',
  'checks',
  'heat_ups',
  'trials',
  'marks',
]);

/** What is wanted of who adds a row to a table, or changes one. */
export const rightToWrite = (table: string): Right => (BENCH_TABLES.has(table) ? 'enter' : 'edit');

const byTable = ({ table }: Params): Wanted => rightToWrite(table ?? '');
const SEEN: Rules = { GET: 'see' };

/**
 * Who may do what: every address of the API, as its file is called, with what each of its methods wants. An
 * address or method that is not here is closed to everybody but owners.
 */
export const API_RULES: Readonly<Record<string, Rules>> = {
  '/api/v1/enter': { POST: 'nothing' },
  '/api/v1/sign-in': { POST: 'nothing' },
  '/api/v1/sign-in/passkey': { POST: 'nothing', PUT: 'nothing' },
  // Judges come by a link that nobody can guess, and are known by a cookie of their own.
  '/api/v1/judging/[link]': { GET: 'nothing', POST: 'nothing', PUT: 'nothing', DELETE: 'nothing' },
  '/api/v1/judging/[link]/pictures/[picture]': { GET: 'nothing' },
  '/api/v1/me': { GET: 'see', PATCH: 'see', DELETE: 'see' },
  '/api/v1/me/devices': { GET: 'see', POST: 'see' },
  '/api/v1/me/devices/[device]': { DELETE: 'see' },
  '/api/v1/me/passkeys': { GET: 'see', POST: 'see', PUT: 'see' },
  '/api/v1/me/passkeys/[passkey]': { DELETE: 'see' },
  '/api/v1/people': { GET: 'own', POST: 'own' },
  '/api/v1/people/[person]': { PATCH: 'own', POST: 'own' },
  '/api/v1/keys': { GET: 'own', POST: 'own' },
  '/api/v1/keys/[key]': { DELETE: 'own' },
  '/api/v1/access-log': { GET: 'own' },
  '/api/v1/find': SEEN,
  '/api/v1/imports': { PUT: 'edit' },
  '/api/v1/things': { GET: 'see', POST: 'edit' },
  '/api/v1/things/[uid]': { GET: 'see', PATCH: 'edit', POST: 'edit', DELETE: 'delete' },
  '/api/v1/studies': { GET: 'see', POST: 'edit' },
  '/api/v1/studies/[study]': { GET: 'see', PATCH: 'edit', DELETE: 'delete', POST: 'delete' },
  '/api/v1/studies/[study]/shelf': { PUT: 'edit' },
  '/api/v1/demo-studies': { DELETE: 'delete', POST: 'delete' },
  '/api/v1/studies/[study]/aftercare': { POST: 'enter' },
  '/api/v1/studies/[study]/agreement': SEEN,
  '/api/v1/studies/[study]/answer': SEEN,
  '/api/v1/studies/[study]/artefacts': { POST: 'edit' },
  '/api/v1/studies/[study]/artefacts/[artefact]/dimensions': { POST: 'edit' },
  '/api/v1/studies/[study]/artefacts/[artefact]/mesh': { GET: 'see', POST: 'edit' },
  '/api/v1/studies/[study]/artefacts/[artefact]/zones': { POST: 'edit' },
  '/api/v1/studies/[study]/deletions': { GET: 'see', POST: 'enter', PUT: 'see' },
  '/api/v1/studies/[study]/deletions/[deletion]': { POST: 'enter' },
  '/api/v1/studies/[study]/evidence': SEEN,
  '/api/v1/studies/[study]/find': SEEN,
  '/api/v1/studies/[study]/follow-ups': { GET: 'see', POST: 'enter' },
  '/api/v1/studies/[study]/follow-ups/changed': SEEN,
  '/api/v1/studies/[study]/history': SEEN,
  '/api/v1/studies/[study]/incidents/[incident]/photos': { GET: 'see', PUT: 'enter' },
  '/api/v1/studies/[study]/inspections': { GET: 'see', POST: 'enter' },
  '/api/v1/studies/[study]/line-up': { POST: 'edit' },
  '/api/v1/studies/[study]/line-up/files': { POST: 'edit' },
  '/api/v1/studies/[study]/line-up/settings': { PUT: 'edit' },
  '/api/v1/studies/[study]/link': { GET: 'see', POST: 'edit' },
  '/api/v1/studies/[study]/live': SEEN,
  '/api/v1/studies/[study]/meshes': { POST: 'edit' },
  '/api/v1/studies/[study]/package': { GET: 'export' },
  '/api/v1/studies/[study]/panels': { GET: 'see', POST: 'edit' },
  '/api/v1/studies/[study]/panels/[panel]': {
    GET: 'see',
    PUT: 'edit',
    POST: 'edit',
    DELETE: 'edit',
  },
  '/api/v1/studies/[study]/progress': SEEN,
  '/api/v1/studies/[study]/photos': { GET: 'see', POST: 'enter', PATCH: 'enter', DELETE: 'edit' },
  '/api/v1/studies/[study]/photos/marks': { GET: 'see', PUT: 'enter', POST: 'enter' },
  '/api/v1/studies/[study]/photos/measures': { POST: 'enter' },
  '/api/v1/studies/[study]/photos/measures/[measure]': { DELETE: 'edit' },
  '/api/v1/studies/[study]/photos/original': SEEN,
  '/api/v1/studies/[study]/photos/part': SEEN,
  '/api/v1/studies/[study]/photos/uploads/[sha256]': { PUT: 'enter', DELETE: 'enter' },
  '/api/v1/studies/[study]/prints': { POST: 'enter' },
  '/api/v1/studies/[study]/profile-settings': { POST: 'edit' },
  '/api/v1/studies/[study]/readings': { GET: 'see', POST: 'enter' },
  '/api/v1/studies/[study]/readings/[reading]': { DELETE: 'enter' },
  '/api/v1/studies/[study]/readings/batch': { POST: 'enter' },
  '/api/v1/studies/[study]/readings/moves': { POST: 'enter' },
  '/api/v1/studies/[study]/report': SEEN,
  '/api/v1/studies/[study]/report/revisions': { GET: 'see', POST: 'edit' },
  '/api/v1/studies/[study]/report/revisions/[number]': {
    PATCH: 'edit',
    POST: 'edit',
    DELETE: 'edit',
  },
  '/api/v1/studies/[study]/report/revisions/[number]/card': SEEN,
  '/api/v1/studies/[study]/report/revisions/[number]/changes': SEEN,
  '/api/v1/studies/[study]/report/words': { PUT: 'edit', POST: 'edit', DELETE: 'edit' },
  '/api/v1/studies/[study]/results': SEEN,
  '/api/v1/studies/[study]/results/[section]': SEEN,
  '/api/v1/studies/[study]/rows/[table]': { GET: 'see', POST: byTable, DELETE: 'edit' },
  '/api/v1/studies/[study]/rows/[table]/[...key]': { GET: 'see', PATCH: byTable, DELETE: 'edit' },
  '/api/v1/studies/[study]/runs': SEEN,
  '/api/v1/studies/[study]/sliced-files': { GET: 'see', POST: 'edit', PATCH: 'edit' },
  '/api/v1/studies/[study]/sliced-files/[...path]': { GET: 'see', PATCH: 'edit', DELETE: 'edit' },
  '/api/v1/studies/[study]/sliced-files/uploads/[sha256]': { PUT: 'edit', DELETE: 'edit' },
  '/api/v1/studies/[study]/specimens': SEEN,
  '/api/v1/studies/[study]/specimens/[specimen]/measurements': SEEN,
  '/api/v1/studies/[study]/sweep': { POST: 'edit' },
  '/api/v1/openapi.json': SEEN,
  '/api/[...path]': SEEN,
};

/** Pages that want more than to be seen, or less. */
const PAGE_RULES: Readonly<Record<string, Wanted>> = {
  '/sign-in': 'nothing',
  '/enter/[token]': 'nothing',
  '/judge/[link]': 'nothing',
  // What is published is for anybody who has its address; what is not is found by nobody.
  '/r/[name]': 'nothing',
  '/r/[name]/[revision]/[...path]': 'nothing',
  '/refused': 'nothing',
  '/people': 'own',
  '/bin': 'enter',
};

/** What an address wants of who asks. @param pattern as its file is called, `/api/v1/things/[uid]` */
export function wantedBy(pattern: string, method: string, params: Params): Wanted {
  if (!pattern.startsWith('/api')) return PAGE_RULES[pattern] ?? 'see';
  const rules = API_RULES[pattern];
  if (!rules) return 'own';
  const asked = method === 'HEAD' ? 'GET' : method;
  // A method that an address does not have is answered there, to whoever may see it.
  if (!isOneOf(keysOf(rules), asked))
    return asked === 'GET' || asked === 'OPTIONS' ? 'see' : 'edit';
  const rule = rules[asked] ?? 'own';
  return typeof rule === 'function' ? rule(params) : rule;
}
