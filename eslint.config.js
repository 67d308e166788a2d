import js from '@eslint/js'
import boundaries from 'eslint-plugin-boundaries'
import { importX } from 'eslint-plugin-import-x'
import hooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

/** What Node has in every file, for programs of ours that are not TypeScript. */
const nodeGlobals = Object.fromEntries(['AbortController', 'AbortSignal', 'Blob', 'Buffer', 'Headers', 'Request', 'Response', 'TextDecoder', 'TextEncoder', 'URL', 'clearImmediate', 'console', 'fetch', 'performance', 'process', 'setImmediate', 'setInterval', 'setTimeout', 'structuredClone'].map((name) => [name, 'readonly']))

const el = (type) => ({ element: { type } })

/** Who may import whom; everything else is refused. docs/architecture.md draws it. */
const policies = [
  { allow: { to: { module: { origin: ['external', 'core'] } } } }, // packages and node builtins: for everyone ...
  { from: el('core'), disallow: { to: { module: { origin: ['external', 'core'] } } } }, // ... but our core/
  { from: el('core'), allow: { to: { module: { origin: 'external', source: ['yup', 'fastest-levenshtein', 'pure-rand/**', '@stdlib/**', 'ml-matrix', 'simple-statistics'] } } } },
  { from: el('core'), allow: { to: el('core') } },
  { from: el('server'), allow: { to: el('{core,server}') } },
  { from: el('demo'), allow: { to: el('{core,server,demo}') } },
  { from: el('speed'), allow: { to: el('{core,server,demo,speed}') } },
  { from: el('attack'), allow: { to: el('{core,server,demo,attack}') } },
  { from: el('e2e'), allow: { to: el('e2e') } },
  { from: el('ui'), allow: { to: el('{core,ui}') } },
  { from: el('feature'), allow: { to: el('{core,ui}') } },
  { from: { element: { type: 'feature', captured: { name: '{{from.element.captured.name}}' } } }, allow: { to: { element: { type: 'feature', captured: { name: '{{from.element.captured.name}}' } } } } },
  { from: el('shell'), allow: { to: el('{core,ui,feature,shell}') } },
]

export default tseslint.config(
  { ignores: ['dist/', 'node_modules/', 'test-results/', 'server/db/migrations/', 'data/', 'demo-data/'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_+$', argsIgnorePattern: '^_', caughtErrors: 'none' }],
      'no-console': 'error',
      'no-control-regex': 'off',
    },
  },
  { files: ['scripts/**', 'web/testing/*.mjs', '**/main.ts', 'server/check.ts', 'speed/**', 'attack/**', 'e2e/**', '*.config.*'], languageOptions: { globals: nodeGlobals }, rules: { 'no-console': 'off', 'no-empty-pattern': 'off' } },
  { files: ['web/**/*.{ts,tsx}'], ...hooks.configs.flat['recommended-latest'] },
  {
    // Components ask hooks, and are made of the pieces of web/ui.
    files: ['web/**/*.tsx'],
    ignores: ['**/*.test.tsx', 'web/testing/**', 'web/App.tsx'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: [{ name: 'swr', message: 'Reads are hooks of their own (useX.ts).' }],
          patterns: [
            { group: ['**/api/useRead', '**/api/fetchJson'], message: 'Reads are hooks of their own (useX.ts).' },
            { group: ['**/api/useOutbox'], importNames: ['useWrite'], message: 'Writes are hooks of their own (useX.ts).' },
          ],
        },
      ],
    },
  },
  {
    files: ['web/*/**/*.tsx'],
    ignores: ['**/*.test.tsx', 'web/testing/**', 'web/ui/**'],
    rules: {
      'no-restricted-syntax': ['error', ...['button', 'select', 'textarea', 'table'].map((name) => ({ selector: `JSXOpeningElement[name.name='${name}']`, message: `web/ui has the one ${name} of the interface.` }))],
    },
  },
  {
    files: ['{core,server,web,demo,speed,attack,e2e}/**/*.{ts,tsx}'],
    ignores: ['**/*.test.ts', '**/*.test.tsx', 'server/testing/**', 'web/testing/**'],
    plugins: { boundaries, 'import-x': importX },
    settings: {
      'import/resolver': { node: { extensions: ['.ts', '.tsx', '.js'] } },
      'import-x/resolver': { node: { extensions: ['.ts', '.tsx', '.js'] } },
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts', '.tsx'] },
      'boundaries/elements': [
        { type: 'core', pattern: 'core' },
        { type: 'server', pattern: 'server' },
        { type: 'demo', pattern: 'demo' },
        { type: 'speed', pattern: 'speed' },
        { type: 'attack', pattern: 'attack' },
        { type: 'e2e', pattern: 'e2e' },
        { type: 'ui', pattern: ['web/ui', 'web/api'] },
        { type: 'feature', pattern: 'web/*', capture: ['name'] },
        { type: 'shell', pattern: 'web' },
      ],
    },
    rules: {
      'boundaries/no-unknown-files': 'error',
      'boundaries/dependencies': ['error', { default: 'disallow', checkAllOrigins: true, policies }],
      'import-x/no-cycle': 'error',
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts', 'core/testing/**'],
    rules: {
      'no-restricted-globals': ['error', 'fetch', 'process', 'window', 'document', 'localStorage', 'performance', 'setTimeout'],
      'no-restricted-syntax': [
        'error',
        { selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']", message: 'The caller passes nowMs.' },
        { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'The caller passes nowMs.' },
        { selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']", message: 'The caller passes a seeded generator.' },
      ],
    },
  },
)
