import * as z from 'zod';
import { ROLES, may } from '../../core/model/access';
import { PART_NAMES } from '../../core/answers/results';
import { TABLES, TABLE_NAMES, type TableName } from '../../core/model/study';
import { wantedBy } from '../access/rules';
import { LIST_QUERY } from '../http/list';
import { givenBy, type Described, type Operation } from '../http/operation';
import { TITLES, type ProblemStatus } from '../http/problem';
import { ROW_EXAMPLES } from './examples';

/** Methods in the order in which they are read. */
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'] as const;
type Method = (typeof METHODS)[number];

/** A method at an address of the API, with what it says of itself. */
export interface Endpoint {
  /** As its file is called: `/api/v1/studies/[study]`. */
  pattern: string;
  method: Method;
  operation: Operation;
  /** Who may do it, by role; `everybody` where nobody has to say who they are. */
  roles: readonly string[];
}

/**
 * The endpoints of modules of pages, by the path of their files. @param modules
 * `./v1/studies/index.ts` → its exports
 */
export function endpointsOf(modules: Readonly<Record<string, object>>): Endpoint[] {
  return Object.entries(modules)
    .map(([path, module]) => ({
      pattern: `/api/${path.replace(/^\.\//, '').replace(/(?:\/index)?\.ts$/, '')}`,
      module: module as Partial<Record<Method, Described>>,
    }))
    .sort((a, b) => (a.pattern < b.pattern ? -1 : 1))
    .flatMap(({ pattern, module }) =>
      METHODS.flatMap((method) => {
        const operation = module[method]?.operation;
        return operation ? [{ pattern, method, operation, roles: rolesFor(pattern, method) }] : [];
      }),
    );
}

function rolesFor(pattern: string, method: Method, params: { table?: string } = {}): string[] {
  const wanted = wantedBy(pattern, method, params);
  return wanted === 'nothing' ? ['everybody'] : ROLES.filter((role) => may(role, wanted));
}

/** An address as programs write it: `/api/v1/studies/{study}`. */
export const addressOf = (pattern: string): string =>
  pattern.replace(/\[(?:\.\.\.)?([^\]]+)\]/g, '{$1}');

/** What an endpoint is about: the first word of its address that is no study. */
export const subjectOf = (pattern: string): string =>
  addressOf(pattern)
    .split('/')
    .slice(3)
    .filter((part) => part !== 'studies' && !part.startsWith('{'))[0] ?? 'studies';

/** Possible errors with an endpoint, by status. */
export function faultsOf({ pattern, method, operation }: Endpoint): ProblemStatus[] {
  const isWrite = method !== 'GET';
  const statuses: (ProblemStatus | false)[] = [
    400,
    401,
    403,
    pattern.includes('[') && 404,
    isWrite && 409,
    operation.isList === true && 410,
    operation.content !== undefined && method !== 'POST' && 412,
    (operation.content ?? operation.file) !== undefined && 413,
    operation.content !== undefined && 415,
    isWrite && 422,
    wantedBy(pattern, method, {}) === 'nothing' && 429,
    500,
    503,
  ];
  return statuses.filter((status) => status !== false);
}

type Json = Record<string, unknown>;

/** A schema of Zod as JSON Schema of 2020-12, as OpenAPI 3.1 has it. */
export function jsonSchema(schema: z.ZodType, io: 'input' | 'output'): Json {
  const made: Json = { ...z.toJSONSchema(schema, { io, unrepresentable: 'any' }) };
  delete made.$schema;
  return made;
}

const rowName = (table: TableName): string => `row_${table}`;
const readName = (table: TableName): string => `read_${table}`;
const reference = (name: string): Json => ({ $ref: `#/components/schemas/${name}` });

/** Rows of every table: as they are sent, and as they are read, with their version. */
function rowSchemas(): Json {
  return Object.fromEntries(
    TABLE_NAMES.flatMap((table) => {
      const { row } = TABLES[table];
      const read = (row as z.ZodObject).extend({ row_version: z.int() });
      return [
        [
          rowName(table),
          { title: `A row of ${table}, as it is sent`, ...jsonSchema(row, 'input') },
        ],
        [
          readName(table),
          { title: `A row of ${table}, as it is read`, ...jsonSchema(read, 'output') },
        ],
      ];
    }),
  );
}

const PROBLEM: Json = {
  type: 'object',
  title: 'What went wrong (RFC 9457)',
  required: ['type', 'title', 'status', 'detail'],
  properties: {
    type: { type: 'string' },
    title: { type: 'string' },
    status: { type: 'integer' },
    detail: { type: 'string', description: 'what is wrong and what to do, for people' },
    issues: {
      type: 'array',
      items: {
        type: 'object',
        required: ['path', 'message'],
        properties: { path: { type: 'string' }, message: { type: 'string' } },
      },
    },
    current: { description: 'at a conflict: the record as it is now' },
  },
};

const DETAILS: Readonly<Partial<Record<ProblemStatus, string>>> = {
  400: 'readings.0.value: must be a number',
  401: 'Sign in, or send a key.',
  403: 'As reader you may not do this. Ask an owner.',
  404: 'There is no study 0190c1de-8c52-7b6e-9f5a-2f8b1a4e6c70.',
  409: 'It was changed by someone else.',
  410: 'The item before this page was deleted: start again at the first page.',
  412: 'It was changed by someone else.',
  413: 'The content is over 1 MiB.',
  415: 'Send JSON, with content-type application/json.',
  422: 'material_id is not among the materials',
  429: 'Too many tries. Wait 60 s.',
  500: 'The server could not do this. Its log has the reason.',
  503: 'The database does not answer. Nothing was changed; try again in a moment.',
};

const faultAnswers = (): Json =>
  Object.fromEntries(
    Object.entries(TITLES).map(([status, title]) => [
      `fault_${status}`,
      {
        description: title,
        content: {
          'application/problem+json': {
            schema: reference('problem'),
            example: {
              type: 'about:blank',
              title,
              status: Number(status),
              detail: DETAILS[Number(status) as ProblemStatus] ?? title,
            },
          },
        },
      },
    ]),
  );

const parameter = (where: string, name: string, description: string, required: boolean): Json => ({
  name,
  in: where,
  required,
  schema: { type: 'string' },
  ...(description !== '' && { description }),
});

/** What the parts of an address mean. */
const PATH_WORDS: Readonly<Record<string, string>> = {
  study: 'the id of the study',
  key: 'the row’s key: the columns of it, with slashes between, each URI-encoded',
  number: 'the number of the revision',
  section: `what of the results: ${PART_NAMES.join(', ')}`,
  sha256: 'the SHA-256 of the file, 64 hexadecimal digits',
  path: 'the path of the file in the study',
};

function parametersOf({ pattern, method, operation }: Endpoint, known: readonly string[]): Json[] {
  const path = [...pattern.matchAll(/\[(?:\.\.\.)?([^\]]+)\]/g)].map(([, name = '']) => name);
  const query = { ...operation.query, ...(operation.isList === true && LIST_QUERY) };
  return [
    ...path
      .filter((name) => !known.includes(name))
      .map((name) => parameter('path', name, PATH_WORDS[name] ?? '', true)),
    ...Object.entries(query).map(([name, words]) => parameter('query', name, words, false)),
    ...(method === 'POST' && operation.content !== undefined && operation.isSecret !== true
      ? [
          parameter(
            'header',
            'Idempotency-Key',
            'a request repeated with this key is done once; 8–200 characters, valid for a day',
            false,
          ),
        ]
      : []),
    ...(operation.content !== undefined && /^(?:PATCH|DELETE)$/.test(method)
      ? [
          parameter(
            'header',
            'If-Match',
            'the ETag that the change was made from, in place of `version`',
            false,
          ),
        ]
      : []),
    ...(method === 'GET' && givenBy(operation).some(({ type }) => type === undefined)
      ? [
          parameter(
            'header',
            'If-None-Match',
            'an ETag that is known already: 304 where nothing changed',
            false,
          ),
        ]
      : []),
  ];
}

/** What of an operation is of one table: in its place of the description. */
interface OfTable {
  table: TableName;
  sent: Json | null;
  answer: Json;
}

function operationOf(endpoint: Endpoint, ofTable: OfTable | null): Json {
  const { pattern, method, operation } = endpoint;
  const roles = ofTable ? rolesFor(pattern, method, ofTable) : endpoint.roles;
  const { content, file, says, example, isList } = operation;
  const sent = ofTable?.sent ?? (content ? jsonSchema(content, 'input') : null);
  const sentExample = ofTable && method === 'POST' ? ROW_EXAMPLES[ofTable.table] : example?.content;
  const answers = givenBy(operation).map(({ status, schema, type }) => {
    if (status === 204) return [status, { description: 'It is done.' }] as const;
    const made = ofTable?.answer ?? (schema ? jsonSchema(schema, 'output') : {});
    const body = {
      schema: made,
      ...(example?.answer !== undefined && { example: example.answer }),
    };
    return [
      status,
      {
        description: status === 202 ? 'It is being done.' : 'All is well.',
        content: type ? { [type]: {} } : { 'application/json': body },
        ...(isList === true && {
          headers: {
            Link: { description: 'the next page, where there is one', schema: { type: 'string' } },
          },
        }),
      },
    ] as const;
  });
  const responses: Json = {};
  for (const [status, answer] of answers) {
    const before = responses[status] as { content?: object } | undefined;
    responses[status] = {
      ...answer,
      content: { ...before?.content, ...('content' in answer && answer.content) },
    };
  }
  if (method === 'GET' && givenBy(operation).some(({ type }) => type === undefined)) {
    responses[304] = { description: 'It has not changed.' };
  }
  for (const status of faultsOf(endpoint)) {
    responses[status] = { $ref: `#/components/responses/fault_${status}` };
  }
  const isOpen = roles.includes('everybody');
  return {
    operationId: [
      method.toLowerCase(),
      ...addressOf(pattern)
        .split('/')
        .slice(3)
        .map((part) => part.replace(/[{}]/g, '')),
      ofTable?.table ?? '',
    ]
      .filter(Boolean)
      .join('_'),
    tags: [subjectOf(pattern)],
    summary: says,
    description: `For ${roles.join(', ')}.`,
    parameters: parametersOf(endpoint, ofTable ? ['table'] : []),
    ...((sent !== null || file !== undefined) && {
      requestBody: {
        required: true,
        content: sent
          ? {
              'application/json': {
                schema: sent,
                ...(sentExample !== undefined && { example: sentExample }),
              },
            }
          : { [file ?? '']: { schema: {} } },
      },
    }),
    responses,
    security: isOpen ? [] : [{ key: [] }, { session: [] }],
  };
}

/** The addresses of the rows of a table are described table by table: what is sent and read is that table's. */
function ofTable(endpoint: Endpoint, table: TableName): OfTable {
  const { pattern, method } = endpoint;
  const read = reference(readName(table));
  if (!pattern.endsWith('[...key]')) {
    const isList = method === 'GET';
    const sent = isList ? null : reference(rowName(table));
    return { table, sent, answer: isList ? { type: 'array', items: read } : read };
  }
  const change = {
    type: 'object',
    properties: {
      version: { type: 'integer' },
      change: { type: 'object', description: `columns of ${table}` },
    },
    required: ['change'],
  };
  const isRemoved = method === 'DELETE';
  const answer = isRemoved
    ? { type: 'object', properties: { is_retired: { type: 'boolean' } } }
    : read;
  return { table, sent: method === 'PATCH' ? change : null, answer };
}

/** Tables whose rows are written at their addresses. */
const ROW_TABLES = TABLE_NAMES.filter((table) => table !== 'readings');

/** The API as OpenAPI 3.1, made from what its endpoints check. @param version of the program */
export function openApi(endpoints: readonly Endpoint[], version: string): Json {
  const paths: Record<string, Json> = {};
  const add = (address: string, method: Method, operation: Json) => {
    paths[address] = { ...paths[address], [method.toLowerCase()]: operation };
  };
  for (const endpoint of endpoints) {
    const address = addressOf(endpoint.pattern);
    if (!address.includes('{table}')) add(address, endpoint.method, operationOf(endpoint, null));
    else {
      for (const table of ROW_TABLES) {
        const own = operationOf(endpoint, ofTable(endpoint, table));
        add(address.replace('{table}', table), endpoint.method, own);
      }
    }
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Vergleich',
      version,
      description:
        'Studies of desktop 3D printers: what is printed, measured and seen, and what follows.',
    },
    servers: [{ url: '/' }],
    paths,
    components: {
      schemas: { problem: PROBLEM, ...rowSchemas() },
      responses: faultAnswers(),
      securitySchemes: {
        key: {
          type: 'http',
          scheme: 'bearer',
          description: 'a key for programs, made under People',
        },
        session: { type: 'apiKey', in: 'cookie', name: 'session' },
      },
    },
  };
}
