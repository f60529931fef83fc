import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

/** Words that nobody says aloud, or that have a plainer one, with what to write instead. */
const BANNED: readonly [RegExp, string][] = [
  [/\banew\b/i, 'again'],
  [/\b(?:by|of) itself\b/i, 'automatically, alone'],
  [/\bof everyone\b/i, 'of all contenders'],
  [/\bmeanwhile\b/i, 'in the meantime, by someone else'],
  [/\bwhoever\b/i, 'name the person'],
  [/\breckons?\b/i, 'calculates'],
  [/\btak(?:e|en) away\b/i, 'export, remove'],
  [/\bstands? (?:twice|here|in the|as it)\b/i, 'is'],
  [/\bstood still\b|\bstand-still\b/i, 'downtime'],
  [/\bafter-work\b/i, 'post-processing'],
  [/\bhangs? (?:on|most|off)\b/i, 'depends on'],
  [/\bby what is known\b/i, 'so far'],
  [/\bof the draws\b/i, 'of simulations'],
  [/\bnot settled\b|\bunsettled\b/i, 'too close to call'],
  [/\bcannot be told\b|\btold apart\b/i, 'cannot be separated, too close to call'],
  [/\b(?:not|be|was|is|are) kept\b/i, 'saved, stored'],
  [/\bnot said\b|\bis said\b|\bwas said\b/i, 'not stated'],
  [/\bnobody’s\b|\bof nobody\b/i, 'no contender’s'],
];

/** Texts that may stay, each with its reason. */
const EXCEPTIONS: readonly [RegExp, string][] = [
  [/^[\w./:[\]-]+$/, 'a key, an address or a class name, which nobody reads'],
  [/=>|&&/, 'an expression of a page'],
  [/\b(?:select|insert|update|alter) [\s\S]*\b(?:from|into|set|table)\b/i, 'SQL'],
];

/** What people read: screens, pages, reports, messages of the server and of the command line. */
const READ = ['ui', 'pages', 'server', 'forms', 'cli', 'files', join('core', 'text')];
/** The reasons and notes within figures are part of the format of results. */
const files = READ.flatMap((folder) =>
  readdirSync(join('src', folder), { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.(?:ts|tsx|astro)$/.test(file) && !/\.test\.tsx?$/.test(file))
    .map((file) => join('src', folder, file)),
);

/** The texts of a file: its strings and what stands between its tags. */
function textsOf(file: string): string[] {
  const source = readFileSync(file, 'utf8');
  const [front = ''] = /^---[\s\S]*?\n---/.exec(source) ?? [];
  const code = file.endsWith('.astro') ? front.replaceAll(/^---$/gm, '') : source;
  const markup = file.endsWith('.astro')
    ? source.slice(front.length).replaceAll(/<[^>]*>|\{\/\*[\s\S]*?\*\/\}/g, '\n')
    : '';
  const texts: string[] = markup.split(/\n\s*\n|\n(?=\s*[{}])/);
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isTypeNode(node)) return;
    if (
      ts.isStringLiteralLike(node) ||
      ts.isJsxText(node) ||
      node.kind === ts.SyntaxKind.TemplateHead ||
      node.kind === ts.SyntaxKind.TemplateMiddle ||
      node.kind === ts.SyntaxKind.TemplateTail
    ) {
      texts.push(node.getText().replaceAll(/\s+/g, ' '));
    }
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile(file, code, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX));
  return texts.map((text) => text.replaceAll(/^['"`]|['"`]$/g, '').trim());
}

/** Class names of the looks, which nobody reads. */
const isOfLooks = (text: string): boolean => /(?:^| )(?:flex|grid|block|px-|py-|text-)/.test(text);

/** So many words a sentence has at the most. */
const MOST_WORDS = 25;

/** The sentences of a text, each as its words. */
const sentencesOf = (text: string): string[][] =>
  text
    .split(/[.!?](?:\s|$)/)
    .map((sentence) => sentence.split(' ').filter((word) => /[A-Za-z]/.test(word)));

describe('what people read', () => {
  it('has no sentence that must be read twice for its length', () => {
    const found = files.flatMap((file) =>
      textsOf(file).flatMap((text) =>
        EXCEPTIONS.some(([pattern]) => pattern.test(text)) || isOfLooks(text)
          ? []
          : sentencesOf(text)
              .filter((words) => words.length > MOST_WORDS)
              .map((words) => `${file}: “${words.slice(0, 12).join(' ')} …”`),
      ),
    );
    expect(found).toEqual([]);
  });

  it('has none of the words that nobody says aloud', () => {
    expect(files.length).toBeGreaterThan(600);
    const found = files.flatMap((file) =>
      textsOf(file).flatMap((text) => {
        if (EXCEPTIONS.some(([pattern]) => pattern.test(text))) return [];
        return BANNED.flatMap(([pattern, better]) =>
          pattern.test(text) ? [`${file}: “${text.slice(0, 120)}” → ${better}`] : [],
        );
      }),
    );
    expect(found).toEqual([]);
  });
});
