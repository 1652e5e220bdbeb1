const ARRAYS = [
  'Float32Array',
  'Float64Array',
  'Int32Array',
  'Uint8Array',
  'Uint8ClampedArray',
  'Uint16Array',
  'Uint32Array',
];

const shared = {
  transform: { '^.+\\.(t|j|mj)sx?$': ['@swc/jest', { module: { type: 'commonjs' } }] },
  extensionsToTreatAsEsm: [],
  // Names of the surroundings are slow to look up in a test's sandbox; these are handed to every module.
  sandboxInjectedGlobals: ['Math', ...ARRAYS],
  moduleNameMapper: { '^(\\.{1,2}/.*)\\.js$': '$1' },
  transformIgnorePatterns: [
    '/node_modules/(?!(@tersum|culori|p-queue|flatbush|flatqueue|p-timeout|eventemitter3|@opencvjs)/)',
  ],
};

/** @param {string} name @param {object} more */
const project = (name, more = {}) => ({
  ...shared,
  displayName: name,
  testEnvironment: 'node',
  roots: [`<rootDir>/packages/${name}/src`],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  ...more,
});

export default {
  // Small shared machines: a limit only ends what hangs, it never measures.
  testTimeout: 120_000,
  projects: [
    project('core'),
    project('document'),
    project('codec'),
    project('threads'),
    project('server', { globalSetup: '<rootDir>/scripts/test-worker.mjs' }),
    project('cli'),
    project('demo'),
    project('web', { testEnvironment: 'jsdom' }),
  ],
};
