import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript';
import importX from 'eslint-plugin-import-x';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/*
 * The rooms and the ways between them (docs/rooms.md). Each entry names a folder and all that may be imported into it from
 * this repository; what is not named is a wall. No entry may name one that names it, whatever the way round: no circle of folders.
 */
const STATIONS = ['artwork', 'films', 'surface', 'layers', 'prepare', 'sheets', 'cut', 'assemble', 'record'];
const ENGINES = {
  artwork: ['cutting'],
  layers: [],
  surface: [],
  marks: [],
  weeding: ['marks'],
  nesting: [],
  cutting: [],
  learning: ['weeding'],
};
const ROOMS = [
  ['core/geometry', []],
  ['core/words', ['core/geometry']],
  ['core/shop', ['core/words', 'core/geometry']],
  ...Object.entries(ENGINES).map(([engine, others]) => [
    `core/engines/${engine}`,
    ['core/geometry', 'core/words', ...others.map((other) => `core/engines/${other}`)],
  ]),
  ['core/laying', ['core/geometry', 'core/words', 'core/shop', 'core/engines']],
  // A station may know those before it in working order, and none after it.
  ...STATIONS.map((station, i) => [
    `core/stations/${station}`,
    [
      'core/geometry',
      'core/words',
      'core/shop',
      'core/engines',
      'core/laying',
      'core/print',
      'core/stations/slice.ts',
      'core/stations/stage.ts',
      ...STATIONS.slice(0, i).map((other) => `core/stations/${other}`),
    ],
  ]),
  ['core/print', ['core/geometry', 'core/words']],
  ['core/recipe', ['core/geometry', 'core/words', 'core/stations']],
  [
    'core/plan',
    [
      'core/geometry',
      'core/words',
      'core/shop',
      'core/engines',
      'core/laying',
      'core/print',
      'core/stations',
      'core/recipe',
    ],
  ],
  [
    'core/batch',
    ['core/geometry', 'core/words', 'core/shop', 'core/engines', 'core/laying', 'core/stations', 'core/plan'],
  ],
  ['platform', ['core']],
  ['cutter', ['core/engines/cutting', 'core/geometry']],
  ['server', ['core', 'platform']],
  ['web/api', ['core']],
  ['web/ui', ['core', 'web/tokens.ts']],
  ['web/light-table', ['core', 'web/tokens.ts', 'web/ui']],
  ['web/plan', ['core', 'web/api']],
  ['web/job', ['core', 'web/tokens.ts', 'web/api', 'web/ui', 'web/plan', 'web/light-table']],
  ['web/batch', ['core', 'web/tokens.ts', 'web/api', 'web/ui', 'web/plan', 'web/light-table']],
  ...STATIONS.map((station) => [
    `web/stations/${station}`,
    ['core', 'web/tokens.ts', 'web/api', 'web/ui', 'web/plan', 'web/light-table', 'web/job', 'web/batch'],
  ]),
  [
    'web/cutting-list',
    [
      'core',
      'web/tokens.ts',
      'web/api',
      'web/ui',
      'web/plan',
      'web/light-table',
      'web/job',
      'web/batch',
      'web/stations/cut',
    ],
  ],
  ['web/jobs', ['core', 'web/tokens.ts', 'web/api', 'web/ui', 'web/plan']],
  ['web/shop', ['core', 'web/tokens.ts', 'web/api', 'web/ui', 'web/plan']],
  ['web/app', ['core', 'web']],
  ['cli', ['core', 'platform', 'cutter', 'demo/shop.ts']],
  ['demo', ['core', 'platform', 'server']],
];
const TOP = ['core', 'platform', 'cutter', 'server', 'web', 'cli', 'demo', 'e2e', 'bench', 'scripts'];

/** Names of what polygons are joined and taken apart by: the page shows what it is given. */
const KERNEL_NAMES = ['grow', 'growBevelled', 'growMitred', 'intersect', 'subtract', 'unite'];

const zones = ROOMS.map(([room, allowed]) => ({
  target: `./${room}`,
  from: './',
  except: [...new Set([`./${room}`, ...allowed.map((path) => `./${path}`), './node_modules'])],
  message: `${room}/ may only use ${allowed.join(', ') || 'itself'} (docs/rooms.md).`,
}));

export default tseslint.config(
  { ignores: ['dist', 'node_modules', 'data', 'coverage', 'backups'] },
  ...tseslint.configs.recommended,
  {
    plugins: { 'import-x': importX },
    settings: { 'import-x/resolver-next': [createTypeScriptImportResolver({ project: './tsconfig.json' })] },
    languageOptions: { globals: { ...globals.node } },
    rules: {
      'import-x/no-duplicates': ['error', { 'prefer-inline': true }],
      'import-x/no-cycle': ['error', { maxDepth: 6 }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-restricted-imports': [
        'error',
        {
          patterns: [{ group: ['clipper2-wasm*'], message: 'Only core/geometry/kernel.ts knows the polygon kernel.' }],
        },
      ],
      'no-console': ['error', { allow: ['error'] }],
      eqeqeq: 'error',
      // Escape sequences of the cutter's own protocol are control characters.
      'no-control-regex': 'off',
    },
  },
  {
    // Tests may set a scene from any room.
    files: ROOMS.map(([room]) => `${room}/**/*.{ts,tsx}`),
    ignores: ['**/*.test.ts', '**/testing/**'],
    rules: { 'import-x/no-restricted-paths': ['error', { zones }] },
  },
  {
    files: TOP.map((folder) => `${folder}/**/*.{ts,tsx}`),
    ignores: ['**/*.d.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: 'ExportDefaultDeclaration', message: 'Exports have names.' },
        { selector: 'ExportAllDeclaration[exported=null]', message: 'A face lists what it shows.' },
      ],
    },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: `ImportSpecifier[imported.name=/^(${KERNEL_NAMES.join('|')})$/]`,
          message: 'No Booleans on the page: core gives it what it draws.',
        },
        { selector: 'ExportDefaultDeclaration', message: 'Exports have names.' },
      ],
    },
  },
  {
    files: [
      'core/geometry/kernel.ts',
      'core/geometry/kernel-memory.test.ts',
      'platform/**',
      'web/plan/plan-worker.ts',
      'bench/**',
    ],
    rules: { 'no-restricted-imports': 'off' },
  },
  { files: ['cli/**', 'scripts/**', 'bench/**', '**/main.ts', '**/*-main.ts'], rules: { 'no-console': 'off' } },
  {
    files: ['web/**'],
    plugins: { 'react-hooks': reactHooks },
    languageOptions: { globals: { ...globals.browser } },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
);
