import { readdirSync } from 'node:fs';
import next from 'eslint-config-next/core-web-vitals';
import tseslint from 'typescript-eslint';
import importPlugin from 'eslint-plugin-import';

/*
 * Who may import whom, in words: core imports only core (and a short list of packages); workers, platform
 * and components only core; store core, workers and platform; a feature core, store, components and itself;
 * app everything. Inside core the folders stand in the order of the work and import only earlier ones.
 * scripts/lintRules.test.ts lints wrong files and expects these errors.
 */
const foldersIn = (path) =>
  readdirSync(new URL(path, import.meta.url), { withFileTypes: true })
    .filter((f) => f.isDirectory())
    .map((f) => f.name);

/** The folders of core in the order of the work; a new one has no place until it is given one here. */
export const coreOrder = [
  'money',
  'calendar',
  'model',
  'formula',
  'files',
  'ledger',
  'intake',
  'schedule',
  'scenario',
  'plan',
  'cash',
  'statements',
  'ground',
  'whatif',
  'variance',
  'report',
  'front',
  'handout',
  'exchange',
  'sheet',
  'checks',
];
const homeless = foldersIn('./src/core').filter((f) => f !== 'test' && !coreOrder.includes(f));
if (homeless.length > 0)
  throw new Error(`core/${homeless.join(', core/')}: no place in the order of the work`);

const everything = foldersIn('./src');
/** What a layer may import beside itself; app may import everything. */
const layers = {
  core: [],
  workers: ['core'],
  platform: ['core'],
  demo: ['core'],
  store: ['core', 'workers', 'platform', 'demo'],
  components: ['core'],
  features: ['core', 'store', 'components'],
  app: everything,
};
for (const layer of everything)
  if (!layers[layer]) throw new Error(`src/${layer}: no rule says what it may import`);

const zones = [
  ...Object.entries(layers).map(([layer, may]) => ({
    target: `./src/${layer}`,
    from: everything.filter((x) => x !== layer && !may.includes(x)).map((x) => `./src/${x}`),
    message: `${layer}/ may import only: ${[...may, 'itself'].join(', ')}.`,
  })),
  ...foldersIn('./src/features').map((feature) => ({
    target: `./src/features/${feature}`,
    from: './src/features',
    except: [`./${feature}`],
    message: 'A feature never imports another feature.',
  })),
  ...coreOrder.map((folder, i) => ({
    target: `./src/core/${folder}`,
    from: coreOrder.slice(i + 1).map((later) => `./src/core/${later}`),
    message: `core/${folder} stands before that folder in the order of the work.`,
  })),
];

/** The packages that core may use; `exceljs`, `saxes`, `pdfkit` and `jszip` only where files are read and written. */
const coreAllow = (extra = []) => {
  const names = ['zod/mini', 'zod/v4/locales', 'immer', 'papaparse', 'decimal.js', ...extra];
  return [
    'error',
    {
      patterns: [
        {
          regex: `^(?!@/core(/|$)|\\.{1,2}/|(${names.join('|')})$)`,
          message: 'core/ runs anywhere: this import is not on its list.',
        },
      ],
    },
  ];
};

const eslintConfig = [
  {
    ignores: [
      '.next/**',
      'node_modules/**',
      'next-env.d.ts',
      'public/**',
      'test-results/**',
      'playwright-report/**',
    ],
  },
  ...next,
  ...tseslint.configs.recommended.map((c) => ({ ...c, files: ['**/*.ts', '**/*.tsx'] })),
  {
    files: ['**/*.ts', '**/*.tsx'],
    plugins: { import: importPlugin },
    settings: {
      // Without the resolver the path rule reports nothing. Cycles are looked for by scripts/cycles.test.ts.
      'import/resolver': { typescript: { project: './tsconfig.json' }, node: true },
      'import/parsers': { '@typescript-eslint/parser': ['.ts', '.tsx'] },
    },
    rules: {
      'import/no-restricted-paths': ['error', { basePath: import.meta.dirname, zones }],
      'import/no-unresolved': 'error',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
    },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts', '**/cases/**', 'src/core/test/**'],
    rules: {
      'no-restricted-imports': coreAllow(),
      'no-restricted-syntax': [
        'error',
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'Today is an argument.',
        },
        {
          selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']",
          message: 'Today is an argument.',
        },
        {
          selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
          message: 'No randomness in core.',
        },
      ],
      'no-restricted-globals': ['error', 'window', 'document', 'localStorage', 'navigator', 'fetch'],
    },
  },
  {
    files: ['src/core/whatif/draws.ts'],
    rules: { 'no-restricted-imports': coreAllow(['pure-rand/generator/xoroshiro128plus']) },
  },
  {
    files: ['src/core/files/**/*.ts', 'src/core/exchange/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'no-restricted-imports': coreAllow(['exceljs', 'saxes', 'pdfkit', 'jszip']) },
  },
];

export default eslintConfig;
