import { EventEmitter } from 'node:events';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { describe, expect, it } from 'vitest';
import { SharedQuestion } from './shared-question';
import { ShownPages } from './shown-pages';

/** A piece of work that ends when it is told to. */
function held<Result>() {
  let end: (result: Result) => void = () => undefined;
  let fail: (error: Error) => void = () => undefined;
  const promise = new Promise<Result>((resolve, reject) => {
    end = resolve;
    fail = reject;
  });
  return { promise, end, fail };
}
const ticks = () => new Promise((resolve) => setImmediate(resolve));

describe('a shared question', () => {
  it('is put once for all who ask before it is put, and again for who asks later', async () => {
    const answers = [held<number>(), held<number>()];
    let puts = 0;
    const question = new SharedQuestion(() => {
      puts += 1;
      return answers[puts - 1]?.promise ?? Promise.reject(new Error('put too often'));
    });
    const early = [question.ask(), question.ask()];
    await ticks();
    expect(puts).toBe(1);
    const late = question.ask();
    await ticks();
    expect(puts).toBe(1);
    answers[0]?.end(1);
    expect(await Promise.all(early)).toEqual([1, 1]);
    await ticks();
    expect(puts).toBe(2);
    answers[1]?.end(2);
    expect(await late).toBe(2);
  });

  it('goes on after a failure', async () => {
    let puts = 0;
    const question = new SharedQuestion(async () => {
      puts += 1;
      await Promise.resolve();
      if (puts === 1) throw new Error('away');
      return puts;
    });
    await expect(question.ask()).rejects.toThrow('away');
    expect(await question.ask()).toBe(2);
  });
});

const STUDY = '01999999-9999-7999-8999-999999999999';
const ADDRESS = `/studies/${STUDY}/results/accuracy`;

class Reply extends EventEmitter {
  statusCode = 0;
  text = '';
  readonly headers = new Map<string, unknown>();
  setHeader(name: string, value: unknown): void {
    this.headers.set(name, value);
  }
  end(body: Buffer): void {
    this.text = body.toString();
  }
}

/** Asks for a page as the server's front door does; renders it where nobody has. */
async function visit(
  pages: ShownPages,
  render: () => Promise<Response>,
  { url = ADDRESS, method = 'GET', host = '127.0.0.1:4321' } = {},
): Promise<string> {
  const req = { url, method, headers: { host } } as unknown as IncomingMessage;
  const reply = new Reply();
  if (await pages.showAgain(req, reply as unknown as ServerResponse, () => Promise.resolve('')))
    return reply.text;
  const headers = new Headers(req.headers as Record<string, string>);
  const response = await pages.render(headers, render);
  reply.emit('close');
  return response.text();
}
const html = (text: string) => Promise.resolve(new Response(text));

describe('pages that are shown again', () => {
  it('are rendered once for a revision, and anew for the next', async () => {
    let revision = '1';
    let count = 0;
    const pages = new ShownPages(() => Promise.resolve(revision));
    const render = () => html(`${revision}, rendered ${(count += 1)}`);
    expect(await visit(pages, render)).toBe('1, rendered 1');
    expect(await visit(pages, render)).toBe('1, rendered 1');
    revision = '2';
    expect(await visit(pages, render)).toBe('2, rendered 2');
  });

  it('whoever asks while one is rendered waits for it', async () => {
    const pages = new ShownPages(() => Promise.resolve('1'));
    const slow = held<Response>();
    let count = 0;
    const render = () => {
      count += 1;
      return slow.promise;
    };
    const visits = [visit(pages, render), visit(pages, render), visit(pages, render)];
    await ticks();
    slow.end(new Response('once'));
    expect(await Promise.all(visits)).toEqual(['once', 'once', 'once']);
    expect(count).toBe(1);
  });

  it('of results that are being made anew are not kept', async () => {
    const pages = new ShownPages(() => Promise.resolve('1'));
    expect(await visit(pages, () => html('<p data-stale-results>'))).toContain('stale');
    expect(await visit(pages, () => html('fresh'))).toBe('fresh');
  });

  it('that failed are rendered again', async () => {
    const pages = new ShownPages(() => Promise.resolve('1'));
    const broken = () => Promise.resolve(new Response('no', { status: 500 }));
    expect(await visit(pages, broken)).toBe('no');
    expect(await visit(pages, () => html('yes'))).toBe('yes');
  });

  it('and nothing else is: other pages, other methods, other hosts, no study', async () => {
    const pages = new ShownPages((study) => Promise.resolve(study === STUDY ? '1' : null));
    let count = 0;
    const render = () => html(String((count += 1)));
    const other = `/studies/${STUDY.replace('1', '2')}/results/accuracy`;
    for (const asked of [
      { url: `/studies/${STUDY}/runs` },
      { method: 'POST' },
      { host: 'elsewhere.example' },
      { url: other },
    ]) {
      const [first, second] = [
        await visit(pages, render, asked),
        await visit(pages, render, asked),
      ];
      expect(second).not.toBe(first);
    }
  });
});
