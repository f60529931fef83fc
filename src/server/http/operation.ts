import type { APIContext, APIRoute } from 'astro';
import type * as z from 'zod';

/** What an answer is like where all is well. */
export interface Gives<Answer extends z.ZodType = z.ZodType> {
  /** 200 where it is not said. */
  status?: number;
  /** What its JSON holds, where that is promised to programs. */
  schema?: Answer;
  /** What kind of file it is, where it is none of JSON. */
  type?: string;
}

/** What an endpoint does with one of its methods, as it is checked and as it is told to programs. */
export interface Operation<Content extends z.ZodType = z.ZodType> {
  /** What it does, in a sentence. */
  says: string;
  /** What the request's JSON must hold. */
  content?: Content;
  /** What kind of file the request's content is, where it is none of JSON. */
  file?: string;
  /** What may stand in the query, and what it means. */
  query?: Readonly<Record<string, string>>;
  /** Whether it is a list that can be had page by page. */
  isList?: boolean;
  /** Whether its answer holds a secret, which is told once and never kept. */
  isSecret?: boolean;
  gives?: number | Gives | readonly (number | Gives)[];
  /** A request's content, and the answer to it, as they are among the demo's studies. */
  example?: { content?: unknown; answer?: unknown };
}

/** A method of an endpoint, with what it says of itself. */
export type Described = APIRoute & { operation: Operation };

/** What handles a request whose content is checked. */
export type Handler<Content extends z.ZodType> = (
  context: APIContext,
  content: z.infer<Content>,
) => Promise<Response>;

/** The answers of an operation, each with its status. */
export function givenBy({ gives = 200 }: Operation): (Gives & { status: number })[] {
  return [gives]
    .flat()
    .map((one) =>
      typeof one === 'number' ? { status: one } : { ...one, status: one.status ?? 200 },
    );
}
