import js from '@eslint/js';
import ts from 'typescript-eslint';

/** What each package may import of the others: the design's walls. */
const MAY_IMPORT = {
  core: [],
  document: ['core'],
  codec: ['core', 'document'],
  threads: ['core'],
  demo: ['core', 'document'],
  server: ['core', 'document', 'codec', 'threads', 'demo'],
  cli: ['core', 'document', 'codec', 'threads'],
  web: ['core', 'document'],
};
const ALL = Object.keys(MAY_IMPORT);

/** The core and the documents run anywhere: nothing of Node, of the browser or of React. */
const ANYWHERE = ['core', 'document'];

const walls = ALL.map((name) => ({
  files: [`packages/${name}/src/**/*.{ts,tsx}`],
  ignores: ['**/*.test.ts', '**/*.test.tsx'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          {
            group: ALL.filter((other) => other !== name && !MAY_IMPORT[name].includes(other)).map(
              (other) => `@tersum/${other}`,
            ),
            message: `${name} may not know this package.`,
          },
          {
            group: [
              '**/packages/**',
              ...ALL.filter((o) => o !== name).map((o) => `../../../${o}/**`),
            ],
            message: 'Packages are imported by name.',
          },
          ...(ANYWHERE.includes(name)
            ? [
                {
                  group: ['node:*', 'react', 'react-*', 'sharp'],
                  message: `${name} runs anywhere.`,
                },
              ]
            : []),
        ],
      },
    ],
    ...(ANYWHERE.includes(name)
      ? {
          'no-restricted-globals': [
            'error',
            ...['window', 'document', 'process', 'Buffer', 'fetch', 'setTimeout', 'performance'],
          ],
        }
      : {}),
  },
}));

/** Replays and searches give the same bytes everywhere: nothing whose last bit may differ between engines. */
const exact = {
  files: [
    'packages/core/src/{repair,fill,predict,solve,shape,donor,piece}/**/*.ts',
    'packages/document/src/render/**/*.ts',
  ],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-properties': [
      'error',
      ...[
        'sin',
        'cos',
        'tan',
        'atan',
        'atan2',
        'exp',
        'log',
        'log2',
        'pow',
        'hypot',
        'cbrt',
        'random',
      ].map((property) => ({
        object: 'Math',
        property,
        message: 'The last bit may differ between engines.',
      })),
    ],
  },
};

export default ts.config(
  {
    ignores: [
      '.cache/',
      'dist/',
      'data/',
      'node_modules/',
      'test-results/',
      'packages/core/kernels/',
      'packages/server/migrations/',
    ],
  },
  js.configs.recommended,
  ...ts.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      eqeqeq: 'error',
      'max-lines': ['error', { max: 400, skipBlankLines: true }],
    },
  },
  {
    files: ['**/*.mjs', 'bin/*.js'],
    languageOptions: {
      globals: {
        console: 'readonly',
        process: 'readonly',
        Buffer: 'readonly',
        setTimeout: 'readonly',
        fetch: 'readonly',
        URL: 'readonly',
      },
    },
  },
  ...walls,
  exact,
);
