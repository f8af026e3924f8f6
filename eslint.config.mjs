import tseslint from 'typescript-eslint';
import reactHooks from 'eslint-plugin-react-hooks';
import importX from 'eslint-plugin-import-x';
import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript';

/**
 * The arrows of docs/architecture.md: app -> features -> (ui, store, workers) -> core.
 * Each folder names the folders it may NOT import from.
 */
const forbidden = {
  core: ['app', 'features', 'ui', 'store', 'workers', 'cli'],
  workers: ['app', 'features', 'ui', 'store', 'cli'],
  store: ['app', 'features', 'ui', 'workers', 'cli'],
  ui: ['app', 'features', 'store', 'workers', 'cli'],
  features: ['app', 'cli'],
  app: ['cli'],
  cli: ['app', 'features', 'ui', 'store', 'workers'],
};

/**
 * The layers of core, lowest first: each may import from itself and from those before it. Files that
 * stand in no folder (errors, text, constants) lie under all of them.
 */
const layers = [
  'document',
  'quantity',
  'numeric',
  'circuit',
  'analysis',
  'response',
  'speaker',
  'parts',
  'library',
  'drawing',
  'topologies',
  'cells',
  'bias',
  'slots',
  'design',
  'fit',
  'spread',
  'solve',
  'mistakes',
  'sweep',
  'rig',
  'suspects',
  'synth',
  'strip',
  'shop',
  'weigh',
  'sheet',
  'bank',
  'crossover',
  'lenses',
  'differences',
  'bench',
  'practice',
  'plan',
  'demo',
  'lessons',
  'listen',
  'book',
  'archive',
  'formats',
  'report',
  'jobs',
];

const browserPackages = [
  'react',
  'react-dom',
  'next',
  'antd',
  'recharts',
  'dexie',
  'comlink',
  'zustand',
  'zundo',
];

/** What no file of a folder may import. */
function patternsOf(folder) {
  const not = forbidden[folder];
  return [
    {
      group: not.flatMap((f) => [`@/${f}`, `@/${f}/**`, `**/../${f}/**`]),
      message: `src/${folder} must not import from there: arrows point app -> features -> (ui, store, workers) -> core.`,
    },
    ...(folder === 'core' || folder === 'cli'
      ? [
          {
            group: browserPackages.flatMap((p) => [p, `${p}/*`]),
            message: 'src/core and src/cli know no interface, browser or database.',
          },
        ]
      : []),
    ...(folder === 'features'
      ? [
          {
            group: ['antd'],
            importNames: ['Slider'],
            message: 'Use ui/controls/slider, which loses no key that comes fast.',
          },
        ]
      : []),
  ];
}

const downwards = layers.map((layer, i) => ({
  files: [`src/core/${layer}/**/*.ts`],
  // What is tested may be held against what is built on it.
  ignores: ['**/*.test.ts', '**/testing/**'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...patternsOf('core'),
          {
            group: layers
              .slice(i + 1)
              .flatMap((l) => [`@/core/${l}`, `@/core/${l}/**`, `**/../${l}/**`]),
            message: `src/core/${layer} must not import from there: the layers of core lie in the order ${layers.join(', ')}, and arrows point downwards.`,
          },
        ].filter(({ group }) => group.length > 0),
      },
    ],
  },
}));

const arrows = Object.keys(forbidden).map((folder) => ({
  files: [`src/${folder}/**/*.{ts,tsx}`],
  rules: { 'no-restricted-imports': ['error', { patterns: patternsOf(folder) }] },
}));

export default tseslint.config(
  { ignores: ['.next/**', 'node_modules/**', 'next-env.d.ts', '**/*.mjs', '**/*.cjs'] },
  ...tseslint.configs.recommendedTypeChecked,
  {
    languageOptions: {
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
    rules: {
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true },
      ],
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-misused-promises': [
        'error',
        { checksVoidReturn: { attributes: false } },
      ],
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  {
    ...reactHooks.configs.flat['recommended-latest'],
    files: ['src/{app,features,ui,store,testing}/**/*.{ts,tsx}'],
  },
  {
    files: ['src/core/**/*.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'navigator',
        'localStorage',
        'indexedDB',
        'self',
      ],
    },
  },
  ...arrows,
  ...downwards,
  {
    files: ['src/**/*.{ts,tsx}'],
    plugins: { 'import-x': importX },
    settings: {
      ...importX.flatConfigs.typescript.settings,
      'import-x/resolver-next': [createTypeScriptImportResolver()],
    },
    rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true }] },
  },
  { files: ['src/cli/**', 'bench/**', 'scripts/**', 'e2e/**'], rules: { 'no-console': 'off' } },
);
