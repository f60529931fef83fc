// @vitest-environment happy-dom
import { renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiError, asItStands, callApi, failureText, TAB, UnreachableError } from './request';
import { fileName } from './save-file';
import { rowsOfTable, tabbed } from './table-text';
import { usePolling } from './use-polling';

function rowsOf(html: string): string[][] {
  document.body.innerHTML = `<table>${html}</table>`;
  const table = document.querySelector('table');
  if (!table) throw new Error('no table');
  return rowsOfTable(table);
}

describe('a table that is taken away', () => {
  it('is its heads and its rows, each as wide as the widest', () => {
    expect(
      rowsOf(`<thead><tr><th>contender</th><th>MAE
         mm</th></tr></thead><tbody><tr><td>A</td><td>−0.021</td><td>!</td></tr></tbody>`),
    ).toEqual([
      ['contender', 'MAE mm', ''],
      ['A', '-0.021', '!'],
    ]);
  });

  it('a cell over several columns stands in the first of them', () => {
    expect(rowsOf('<tr><td colspan="2">all</td><td>3</td></tr>')).toEqual([['all', '', '3']]);
  });

  it('what is not known is empty, and a row of nothing is none', () => {
    expect(
      rowsOf('<tr><td class="unknown">not known</td><td>1</td></tr><tr><td> </td></tr>'),
    ).toEqual([['', '1']]);
    expect(rowsOf('<tr><td><i class="unknown">not known</i></td><td>1</td></tr>')).toEqual([
      ['', '1'],
    ]);
  });

  it('says a figure as it names it, what is typed, and no decoration', () => {
    expect(
      rowsOf(`<tr>
        <td><span data-figure-text="0.02134">0.02</span></td>
        <td><input value="7" /><select><option>a</option><option selected>b</option></select></td>
        <td><input type="checkbox" checked /></td>
        <td><svg><text>drawn</text></svg><span aria-hidden="true">▸</span>told</td>
      </tr>`),
    ).toEqual([['0.02134', '7 b', 'yes', 'told']]);
  });

  it('on the clipboard has tabs and line feeds between its cells only', () => {
    expect(
      tabbed([
        ['a\tb', 'c'],
        ['d\ne', 'f'],
      ]),
    ).toBe('a b\tc\nd e\tf');
  });
});

describe('the name of a file', () => {
  it.each([
    ['Accuracy', 'accuracy'],
    ['Claim, command, reach', 'claim-command-reach'],
    ['Größe über alles!', 'größe-über-alles'],
    ['../../etc/passwd', 'etc-passwd'],
    ['***', 'vergleich'],
  ])('from %s', (title, name) => {
    expect(fileName(title)).toBe(name);
  });
});

describe('a request', () => {
  const answering = (status: number, text: string) =>
    vi.stubGlobal('fetch', () => Promise.resolve(new Response(text, { status })));

  it('that is refused says why, with the issues and the record as it stands', async () => {
    const issues = [{ path: 'name', message: 'is empty' }];
    answering(409, JSON.stringify({ detail: 'taken', issues, current: { a: 1 } }));
    const failed: unknown = await callApi('GET', '/x').catch((error: unknown) => error);
    expect(failed).toBeInstanceOf(ApiError);
    expect(failed).toMatchObject({ status: 409, message: 'taken', issues, current: { a: 1 } });
  });

  it('whose answer is no JSON still has words', async () => {
    answering(502, '<html>bad gateway</html>');
    await expect(callApi('GET', '/x')).rejects.toThrow('The server could not do this.');
  });

  it('that reaches nobody is told apart from a refusal', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('network')));
    await expect(callApi('GET', '/x')).rejects.toBeInstanceOf(UnreachableError);
  });

  it('carries who is at the bench, and which page it is of', async () => {
    localStorage.setItem('vergleich.operator', ' Åsa ');
    const seen = vi.fn(() => Promise.resolve(new Response('{}')));
    vi.stubGlobal('fetch', seen);
    await callApi('POST', '/x', { a: 1 });
    expect(seen).toHaveBeenCalledWith(
      '/api/v1/x',
      expect.objectContaining({
        headers: { 'content-type': 'application/json', 'x-tab': TAB, 'x-operator': '%C3%85sa' },
      }),
    );
    localStorage.clear();
  });

  it('that adds something twice at once adds it once, and later again', async () => {
    const answers: (() => void)[] = [];
    const seen = vi.fn(
      () =>
        new Promise<Response>((resolve) => {
          answers.push(() => resolve(new Response(`{"n":${answers.length}}`)));
        }),
    );
    vi.stubGlobal('fetch', seen);
    const both = [callApi('POST', '/rows', { a: 1 }), callApi('POST', '/rows', { a: 1 })];
    const other = callApi('POST', '/rows', { a: 2 });
    expect(seen).toHaveBeenCalledTimes(2);
    for (const answer of answers) answer();
    expect(await Promise.all(both)).toEqual([{ n: 2 }, { n: 2 }]);
    await other;
    const again = callApi('POST', '/rows', { a: 1 });
    expect(seen).toHaveBeenCalledTimes(3);
    answers[2]?.();
    await again;
    // A change is no addition: each is sent.
    const changes = [callApi('PATCH', '/rows', { a: 1 }), callApi('PATCH', '/rows', { a: 1 })];
    expect(seen).toHaveBeenCalledTimes(5);
    for (const answer of answers.slice(3)) answer();
    await Promise.all(changes);
  });

  it('that adds something and fails does not stand in the way of the next', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('network')));
    const both = [callApi('POST', '/rows', { b: 1 }), callApi('POST', '/rows', { b: 1 })];
    for (const one of both) await expect(one).rejects.toBeInstanceOf(UnreachableError);
    answering(200, '{"ok":true}');
    await expect(callApi('POST', '/rows', { b: 1 })).resolves.toEqual({ ok: true });
  });

  it('that this page’s own change overtakes is asked again, and any other is not', async () => {
    const answers: ((text: string) => void)[] = [];
    vi.stubGlobal('fetch', (_: string, { method }: RequestInit) =>
      method === 'GET'
        ? new Promise((resolve) => answers.push((text) => resolve(new Response(text))))
        : Promise.resolve(new Response('{}')),
    );
    const read = asItStands(() => callApi<{ at: number }>('GET', '/rows'));
    await vi.waitFor(() => expect(answers).toHaveLength(1), 60_000);
    await callApi('POST', '/rows', {});
    // It was made before the row was there.
    answers[0]?.('{"at":1}');
    await vi.waitFor(() => expect(answers).toHaveLength(2), 60_000);
    const other = callApi('GET', '/other');
    await vi.waitFor(() => expect(answers).toHaveLength(3), 60_000);
    answers[2]?.('{}');
    await other;
    answers[1]?.('{"at":2}');
    expect(await read).toEqual({ at: 2 });
  });

  it('what is no error has words too', () => {
    expect(failureText('odd')).toBe('It could not be done.');
    expect(failureText(new Error('because'))).toBe('because');
  });
});

describe('looking again and again', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it('looks when the last look was answered, and goes on after one that failed', async () => {
    const look = vi.fn<() => Promise<void>>(() => Promise.reject(new Error('away')));
    const { unmount } = renderHook(() => usePolling(look, 1000));
    await vi.advanceTimersByTimeAsync(999);
    expect(look).toHaveBeenCalledTimes(0);
    await vi.advanceTimersByTimeAsync(1);
    expect(look).toHaveBeenCalledTimes(1);
    let answer: () => void = () => undefined;
    look.mockImplementation(() => new Promise((resolve) => (answer = resolve)));
    await vi.advanceTimersByTimeAsync(1000);
    expect(look).toHaveBeenCalledTimes(2);
    await vi.advanceTimersByTimeAsync(5000);
    expect(look).toHaveBeenCalledTimes(2);
    answer();
    await vi.advanceTimersByTimeAsync(1000);
    expect(look).toHaveBeenCalledTimes(3);
    unmount();
    answer();
    await vi.advanceTimersByTimeAsync(5000);
    expect(look).toHaveBeenCalledTimes(3);
  });

  it('does not look where it is switched off', async () => {
    const look = vi.fn(() => Promise.resolve());
    renderHook(() => usePolling(look, 10, false));
    await vi.advanceTimersByTimeAsync(100);
    expect(look).not.toHaveBeenCalled();
  });
});
