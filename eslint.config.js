import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript';
import importX from 'eslint-plugin-import-x';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/*
 * The rooms and the ways between them (docs/rooms.md). Each entry names a folder and all that may be imported into it from
 * this repository; what is not named is a wall.
 */
const STAGES = ['artwork', 'layers', 'surface', 'preparation', 'nesting', 'cutting', 'assembly', 'records'];
const ROOMS = [
  ['core/geometry', []],
  ['core/job', ['core/geometry']],
  ...STAGES.map((stage) => [`core/${stage}`, ['core/geometry', 'core/job']]),
  ['core/job/plan', ['core']],
  ['core', ['core']],
  ['platform', ['core/geometry', 'core/job', 'core/artwork']],
  ['cutter', ['core/cutting']],
  ['server', ['core', 'platform']],
  ['web', ['core']],
  ['cli', ['core', 'platform', 'cutter', 'demo/shop.ts']],
  ['demo', ['core', 'server']],
];
const TOP = ['core', 'platform', 'cutter', 'server', 'web', 'cli', 'demo', 'e2e', 'bench', 'scripts'];

const zones = ROOMS.map(([room, allowed]) => {
  const target = room === 'core/job' ? './core/job/*.ts' : `./${room}`;
  return { target, from: './', except: [...new Set([`./${room}`, ...allowed.map((path) => `./${path}`), './node_modules'])], message: `${room}/ may only use ${allowed.join(', ') || 'itself'} (docs/rooms.md).` };
});
// The stages must not reach into plan(), which knows them all.
const noPlan = { target: ['geometry', 'job', ...STAGES].map((stage) => (stage === 'job' ? './core/job/*.ts' : `./core/${stage}`)), from: './core/job/plan', message: 'A stage knows nothing of plan().' };

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
      'no-restricted-imports': ['error', { patterns: [{ group: ['clipper2-wasm*'], message: 'Only core/geometry/kernel.ts knows the polygon kernel.' }] }],
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
    rules: { 'import-x/no-restricted-paths': ['error', { zones: [...zones, noPlan] }] },
  },
  {
    files: TOP.map((folder) => `${folder}/**/*.{ts,tsx}`),
    ignores: ['**/*.d.ts'],
    rules: { 'no-restricted-syntax': ['error', { selector: 'ExportDefaultDeclaration', message: 'Exports have names.' }, { selector: 'ExportAllDeclaration[exported=null]', message: 'A face lists what it shows.' }] },
  },
  { files: ['core/geometry/kernel.ts', 'platform/**', 'web/plan/plan-worker.ts', 'bench/**'], rules: { 'no-restricted-imports': 'off' } },
  { files: ['cli/**', 'scripts/**', 'bench/**', '**/main.ts', '**/*-main.ts'], rules: { 'no-console': 'off' } },
  { files: ['web/**'], plugins: { 'react-hooks': reactHooks }, languageOptions: { globals: { ...globals.browser } }, rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' } },
);
