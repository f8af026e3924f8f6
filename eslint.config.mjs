import tseslint from 'typescript-eslint';
import reactHooks from 'eslint-plugin-react-hooks';

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

const arrows = Object.entries(forbidden).map(([folder, not]) => ({
  files: [`src/${folder}/**/*.{ts,tsx}`],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
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
        ],
      },
    ],
  },
}));

export default tseslint.config(
  { ignores: ['.next/**', 'node_modules/**', 'next-env.d.ts', '**/*.mjs'] },
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
  { ...reactHooks.configs.flat['recommended-latest'], files: ['src/**/*.tsx', 'src/**/*.ts'] },
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
  { files: ['src/cli/**', 'bench/**', 'scripts/**', 'e2e/**'], rules: { 'no-console': 'off' } },
);
