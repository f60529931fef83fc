import { validate } from '@readme/openapi-parser';
import type { OpenAPIV3_1 } from 'openapi-types';
import { describe, expect, it } from 'vitest';
import { TABLES, TABLE_NAMES } from '../../core/model/study';
import { ENDPOINTS } from './_endpoints';
import { API_RULES } from '../../server/access/rules';
import { ROW_EXAMPLES } from '../../server/api/examples';
import { addressOf, faultsOf, openApi } from '../../server/api/openapi';

const SOURCES = import.meta.glob<string>('./v1/**/*.ts', {
  eager: true,
  query: '?raw',
  import: 'default',
});
const sourceOf = (pattern: string): string => {
  const path = pattern.replace('/api', '.');
  return SOURCES[`${path}.ts`] ?? SOURCES[`${path}/index.ts`] ?? '';
};
const document = openApi(ENDPOINTS, '1.2.3') as unknown as OpenAPIV3_1.Document;

describe('the description of the API', () => {
  it('is OpenAPI 3.1', async () => {
    expect(document.openapi).toBe('3.1.0');
    const { valid, ...more } = await validate(structuredClone(document) as never);
    expect({ valid, ...more }).toMatchObject({ valid: true });
  });

  it('has every address and method that somebody may ask for', () => {
    const ruled = Object.entries(API_RULES)
      .filter(([pattern]) => pattern.startsWith('/api/v1/') && !pattern.endsWith('openapi.json'))
      .flatMap(([pattern, rules]) => Object.keys(rules).map((method) => `${method} ${pattern}`));
    const told = ENDPOINTS.map(({ method, pattern }) => `${method} ${pattern}`);
    expect([...told].sort()).toEqual([...ruled].sort());
  });

  it('names each operation once, for a client to be made of it', () => {
    const names = Object.values(document.paths ?? {}).flatMap((path) =>
      Object.values(path ?? {}).map(
        (operation) => (operation as { operationId: string }).operationId,
      ),
    );
    expect(names.length).toBeGreaterThan(200);
    expect(new Set(names).size).toBe(names.length);
  });

  it.each(ENDPOINTS.map((one) => [`${one.method} ${one.pattern}`, one] as const))(
    '%s: what it says of itself is what it does',
    (_, { pattern, method, operation }) => {
      expect(operation.says).toMatch(/^[A-Z].*\.$/s);
      if (operation.content && !addressOf(pattern).endsWith('/rows/{table}')) {
        expect(operation.content.safeParse(operation.example?.content)).toMatchObject({
          success: true,
        });
      }
      // A word of the query that is asked for stands in the description.
      const source = sourceOf(pattern);
      const [, own = ''] =
        new RegExp(`export const ${method} = (.*?)\\n\\);`, 's').exec(source) ?? [];
      const asked = [...own.matchAll(/queryOf\(\s*context,\s*'(\w+)'/g)].map(
        ([, name]) => name ?? '',
      );
      expect(Object.keys(operation.query ?? {})).toEqual(expect.arrayContaining(asked));
    },
  );

  it('has rows of every table as they are sent and read, and examples that would be taken', () => {
    const schemas = document.components?.schemas ?? {};
    for (const table of TABLE_NAMES) {
      expect(schemas[`row_${table}`]).toMatchObject({ type: 'object' });
      expect(schemas[`read_${table}`]).toHaveProperty('properties.row_version');
    }
    for (const [table, example] of Object.entries(ROW_EXAMPLES)) {
      const { row } = TABLES[table as keyof typeof TABLES];
      expect([table, row.strict().safeParse(example)]).toMatchObject([table, { success: true }]);
    }
  });

  it('says possible errors: a change of an old version, too many tries, what is gone', () => {
    const faults = (method: string, pattern: string) => {
      const found = ENDPOINTS.find((one) => one.method === method && one.pattern === pattern);
      return found ? faultsOf(found) : [];
    };
    expect(faults('PATCH', '/api/v1/studies/[study]')).toEqual([
      400, 401, 403, 404, 409, 412, 413, 415, 422, 500, 503,
    ]);
    expect(faults('POST', '/api/v1/sign-in')).toContain(429);
    expect(faults('GET', '/api/v1/studies/[study]/readings')).toEqual([
      400, 401, 403, 404, 410, 500, 503,
    ]);
    expect(faults('GET', '/api/v1/me')).not.toContain(404);
  });
});
