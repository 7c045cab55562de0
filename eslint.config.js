import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import regexp from 'eslint-plugin-regexp';
import { defineConfig } from 'eslint/config';
import ts from 'typescript-eslint';

export default defineConfig(
  { ignores: ['**/dist/**', '**/dist-types/**', '**/.data*/**', 'test-results/**'] },
  js.configs.recommended,
  {
    // A text of an editor or of a file must never make an expression go back and forth for ever.
    plugins: { regexp },
    rules: { 'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }] },
  },
  {
    files: ['**/*.ts', '**/*.tsx'],
    extends: [ts.configs.strictTypeChecked],
    languageOptions: {
      parserOptions: {
        projectService: { allowDefaultProject: ['packages/web/vite.config.ts'] },
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-extraneous-class': 'off',
      // Numbers in sentences are what they look like.
      '@typescript-eslint/restrict-template-expressions': [
        'error',
        { allowNumber: true, allowBoolean: true, allowNullish: true },
      ],
      // Handlers end early by returning what a call returns, and plugins are async by their signature.
      '@typescript-eslint/no-confusing-void-expression': 'off',
      '@typescript-eslint/require-await': 'off',
      'max-lines': ['error', { max: 320, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ['packages/web/**/*.ts', 'packages/web/**/*.tsx'],
    plugins: { 'react-hooks': hooks },
    rules: hooks.configs.recommended.rules,
  },
  {
    files: ['**/*.mjs', '**/*.cjs', '**/*.js'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        setTimeout: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
        clearTimeout: 'readonly',
        fetch: 'readonly',
        URL: 'readonly',
        module: 'writable',
        require: 'readonly',
        __dirname: 'readonly',
        document: 'readonly',
        localStorage: 'readonly',
        matchMedia: 'readonly',
      },
    },
  },
);
