import js from '@eslint/js';
import astro from 'eslint-plugin-astro';
import globals from 'globals';
import tseslint from 'typescript-eslint';

// Pages and scripts; all TypeScript is read by the faster linter, with its types (.oxlintrc.json).
export default tseslint.config(
  {
    ignores: ['dist', '.astro', 'node_modules', 'demo/clip-bench', 'test-results', '**/*.{ts,tsx}'],
  },
  js.configs.recommended,
  ...astro.configs.recommended,
  {
    files: ['**/*.astro'],
    languageOptions: {
      parserOptions: { parser: tseslint.parser, extraFileExtensions: ['.astro'] },
    },
    rules: {
      // A page asks the server; rows and SQL are not its own.
      'no-restricted-imports': ['error', { patterns: ['**/data', '**/data/**', '**/server/app'] }],
    },
  },
  {
    files: ['scripts/**/*.mjs', 'bench/*.mjs', 'bin/*.mjs', '*.{js,cjs,mjs}'],
    languageOptions: { globals: globals.node },
  },
  { files: ['public/*.js'], languageOptions: { globals: globals.serviceworker } },
);
