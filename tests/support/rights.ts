/**
 * Who may do what, written down by hand from what each role is for: it asks nothing of the code that it tests.
 *
 * One line an address: the address, and for each method who may: `o` owner, `e` evaluator, `p` operator, `r` reader,
 * `*` everybody, also without a sign-in. In `rows` the first is of a table that is written at the bench, the second
 * of any other.
 */
const BY_HAND = `
/api/v1/access-log                                             GET:o
/api/v1/demo-studies                                           DELETE:o POST:o
/api/v1/enter                                                  POST:*
/api/v1/find                                                   GET:oepr
/api/v1/imports                                                PUT:oe
/api/v1/judging/[link]                                         GET:* POST:* PUT:* DELETE:*
/api/v1/judging/[link]/pictures/[picture]                      GET:*
/api/v1/keys                                                   GET:o POST:o
/api/v1/keys/[key]                                             DELETE:o
/api/v1/me                                                     GET:oepr PATCH:oepr DELETE:oepr
/api/v1/me/devices                                             GET:oepr POST:oepr
/api/v1/me/devices/[device]                                    DELETE:oepr
/api/v1/me/passkeys                                            GET:oepr POST:oepr PUT:oepr
/api/v1/me/passkeys/[passkey]                                  DELETE:oepr
/api/v1/openapi.json                                           GET:oepr
/api/v1/people                                                 GET:o POST:o
/api/v1/people/[person]                                        PATCH:o POST:o
/api/v1/sign-in                                                POST:*
/api/v1/sign-in/passkey                                        POST:* PUT:*
/api/v1/studies                                                GET:oepr POST:oe
/api/v1/studies/[study]                                        GET:oepr PATCH:oe DELETE:o POST:o
/api/v1/studies/[study]/aftercare                              POST:oep
/api/v1/studies/[study]/agreement                              GET:oepr
/api/v1/studies/[study]/answer                                 GET:oepr
/api/v1/studies/[study]/artefacts                              POST:oe
/api/v1/studies/[study]/artefacts/[artefact]/dimensions        POST:oe
/api/v1/studies/[study]/artefacts/[artefact]/mesh              GET:oepr POST:oe
/api/v1/studies/[study]/artefacts/[artefact]/zones             POST:oe
/api/v1/studies/[study]/deletions                              GET:oepr PUT:oepr POST:oep
/api/v1/studies/[study]/deletions/[deletion]                   POST:oep
/api/v1/studies/[study]/evidence                               GET:oepr
/api/v1/studies/[study]/find                                   GET:oepr
/api/v1/studies/[study]/follow-ups                             GET:oepr POST:oep
/api/v1/studies/[study]/follow-ups/changed                     GET:oepr
/api/v1/studies/[study]/history                                GET:oepr
/api/v1/studies/[study]/incidents/[incident]/photos            GET:oepr PUT:oep
/api/v1/studies/[study]/inspections                            GET:oepr POST:oep
/api/v1/studies/[study]/line-up                                POST:oe
/api/v1/studies/[study]/line-up/files                          POST:oe
/api/v1/studies/[study]/line-up/settings                       PUT:oe
/api/v1/studies/[study]/link                                   GET:oepr POST:oe
/api/v1/studies/[study]/live                                   GET:oepr
/api/v1/studies/[study]/meshes                                 POST:oe
/api/v1/studies/[study]/package                                GET:oer
/api/v1/studies/[study]/panels                                 GET:oepr POST:oe
/api/v1/studies/[study]/panels/[panel]                         GET:oepr PUT:oe POST:oe DELETE:oe
/api/v1/studies/[study]/photos                                 GET:oepr POST:oep PATCH:oep DELETE:oe
/api/v1/studies/[study]/photos/marks                           GET:oepr PUT:oep POST:oep
/api/v1/studies/[study]/photos/measures                        POST:oep
/api/v1/studies/[study]/photos/measures/[measure]              DELETE:oe
/api/v1/studies/[study]/photos/original                        GET:oepr
/api/v1/studies/[study]/photos/part                            GET:oepr
/api/v1/studies/[study]/photos/uploads/[sha256]                PUT:oep DELETE:oep
/api/v1/studies/[study]/prints                                 POST:oep
/api/v1/studies/[study]/profile-settings                       POST:oe
/api/v1/studies/[study]/readings                               GET:oepr POST:oep
/api/v1/studies/[study]/readings/[reading]                     DELETE:oep
/api/v1/studies/[study]/readings/batch                         POST:oep
/api/v1/studies/[study]/readings/moves                         POST:oep
/api/v1/studies/[study]/report                                 GET:oepr
/api/v1/studies/[study]/report/revisions                       GET:oepr POST:oe
/api/v1/studies/[study]/report/revisions/[number]              PATCH:oe POST:oe DELETE:oe
/api/v1/studies/[study]/report/revisions/[number]/card         GET:oepr
/api/v1/studies/[study]/report/revisions/[number]/changes      GET:oepr
/api/v1/studies/[study]/report/words                           PUT:oe POST:oe DELETE:oe
/api/v1/studies/[study]/results                                GET:oepr
/api/v1/studies/[study]/results/[section]                      GET:oepr
/api/v1/studies/[study]/progress                               GET:oepr
/api/v1/studies/[study]/rows/[table]                           GET:oepr POST:oep,oe DELETE:oe
/api/v1/studies/[study]/rows/[table]/[...key]                  GET:oepr PATCH:oep,oe DELETE:oe
/api/v1/studies/[study]/runs                                   GET:oepr
/api/v1/studies/[study]/shelf                                  PUT:oe
/api/v1/studies/[study]/sliced-files                           GET:oepr POST:oe PATCH:oe
/api/v1/studies/[study]/sliced-files/[...path]                 GET:oepr PATCH:oe DELETE:oe
/api/v1/studies/[study]/sliced-files/uploads/[sha256]          PUT:oe DELETE:oe
/api/v1/studies/[study]/specimens                              GET:oepr
/api/v1/studies/[study]/specimens/[specimen]/measurements      GET:oepr
/api/v1/studies/[study]/sweep                                  POST:oe
/api/v1/things                                                 GET:oepr POST:oe
/api/v1/things/[uid]                                           GET:oepr PATCH:oe POST:oe DELETE:o
`;

export type HandRole = 'owner' | 'evaluator' | 'operator' | 'reader';

const SIGNS: Record<string, HandRole> = { o: 'owner', e: 'evaluator', p: 'operator', r: 'reader' };

/** Who may use a method of an address; null where it is not written down. */
export interface HandRule {
  pattern: string;
  method: string;
  isForAll: boolean;
  /** Of a table that is written at the bench, and of any other. */
  roles: readonly [ReadonlySet<HandRole>, ReadonlySet<HandRole>];
}

const rolesOf = (signs: string): ReadonlySet<HandRole> =>
  new Set([...signs].flatMap((sign) => SIGNS[sign] ?? []));

/** Every line of the table. */
export const HAND_RULES: readonly HandRule[] = BY_HAND.trim()
  .split('\n')
  .flatMap((line) => {
    const [pattern = '', ...methods] = line.trim().split(/\s+/);
    return methods.map((text): HandRule => {
      const [method = '', signs = ''] = text.split(':');
      const [bench = '', other = bench] = signs.split(',');
      return { pattern, method, isForAll: signs === '*', roles: [rolesOf(bench), rolesOf(other)] };
    });
  });
