import tseslint from 'typescript-eslint';
import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript';
import imports from 'eslint-plugin-import-x';
import hooks from 'eslint-plugin-react-hooks';
import regexp from 'eslint-plugin-regexp';

/**
 * What each room may not import. Imports go one way: app -> runtime, usecases; runtime -> usecases -> data, core; ui -> core;
 * standins -> core. Tests of app may look into the data.
 */
const FORBIDDEN = {
  core: ['data', 'usecases', 'standins', 'runtime', 'app', 'ui'],
  data: ['usecases', 'standins', 'runtime', 'app', 'ui'],
  standins: ['data', 'usecases', 'runtime', 'app', 'ui'],
  usecases: ['standins', 'runtime', 'app', 'ui'],
  ui: ['data', 'usecases', 'standins', 'runtime', 'app'],
  runtime: ['app', 'ui'],
  app: ['data'],
};

/** Packages that would make core impure: interface, database, files, network. */
const IMPURE = ['react', 'react-dom', 'react-bootstrap', 'next', '@electric-sql/pglite', 'sharp', 'pino'];

const direction = (room) => ({
  files: [`src/${room}/**/*.{ts,tsx}`],
  ...(room === 'app' && { ignores: ['**/*.test.{ts,tsx}', 'src/app/api/testApp.ts'] }),
  rules: {
    'no-restricted-imports': [
      'error',
      {
        paths: room === 'core' ? IMPURE.map((name) => ({ name, message: 'core is pure' })) : [],
        patterns: [
          { regex: `^@/(${FORBIDDEN[room].join('|')})(/|$)`, message: `${room} may not import from there` },
          { regex: '^(\\.\\./)+(core|data|usecases|standins|runtime|app|ui)/', message: 'between rooms, import by @/' },
          ...(room === 'core' ? [{ regex: '^(node:|next/|react-bootstrap/)', message: 'core is pure' }] : []),
        ],
      },
    ],
  },
});

const SQL = {
  selector: 'TemplateElement[value.raw=/^\\s*(select|insert into|update|delete from)\\s/]',
  message: 'SQL stands in src/data only',
};

export default tseslint.config(
  {
    ignores: [
      '.next/**',
      'node_modules/**',
      'next-env.d.ts',
      'bench/results/**',
      'test-results/**',
      '.bimlo-data*/**',
      'bimlo-data/**',
    ],
  },
  ...tseslint.configs.recommended,
  {
    plugins: { 'react-hooks': hooks, regexp },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      // No text may make an expression run away.
      'regexp/no-super-linear-backtracking': ['error', { report: 'certain' }],
      'regexp/no-super-linear-move': ['error', { report: 'certain' }],
      'no-empty': ['error', { allowEmptyCatch: false }],
      eqeqeq: ['error', 'smart'],
    },
  },
  {
    files: ['src/**/*.{ts,tsx}'],
    plugins: { 'import-x': imports },
    settings: {
      'import-x/resolver-next': [createTypeScriptImportResolver()],
      'import-x/extensions': ['.ts', '.tsx'],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts', '.tsx'] },
    },
    rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true }] },
  },
  ...Object.keys(FORBIDDEN).map(direction),
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'fetch', 'window', 'document', 'process', 'localStorage', 'setTimeout'],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'the clock comes in as an argument' },
        { object: 'Math', property: 'random', message: 'chance comes in as an argument' },
        { object: 'crypto', property: 'randomUUID', message: 'ids come in as an argument' },
      ],
    },
  },
  {
    // A page that came by plain HTTP from another machine has none of these.
    files: ['src/{app,ui}/**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'crypto', property: 'randomUUID', message: 'the package uuid makes ids on every page' },
        { object: 'crypto', property: 'subtle', message: 'not there by plain HTTP' },
        { object: 'navigator', property: 'clipboard', message: 'useCopy copies on every page' },
        { object: 'navigator', property: 'locks', message: 'not there by plain HTTP' },
      ],
    },
  },
  {
    // SQL stands in src/data only.
    files: ['src/{app,ui,usecases,runtime,core,standins}/**/*.{ts,tsx}'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-syntax': ['error', SQL],
    },
  },
  {
    // One frame for dialogs, one for fields.
    files: ['src/{app,ui}/**/*.tsx'],
    ignores: ['src/ui/Dialog.tsx', 'src/ui/Field.tsx'],
    rules: {
      'no-restricted-syntax': [
        'error',
        SQL,
        { selector: "ImportDeclaration[source.value='react-bootstrap/Modal']", message: 'a dialog is ui/Dialog' },
        {
          selector: "JSXMemberExpression[object.name='Form'][property.name=/^(Group|Label|Text)$/]",
          message: 'a field is ui/Field',
        },
      ],
    },
  },
);
