/** Unit and HTTP tests; browser journeys run under Playwright (playwright.config.ts). */
export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/core', '<rootDir>/server', '<rootDir>/web', '<rootDir>/demo', '<rootDir>/scripts'],
  // Tests that start a program of ours start the built one.
  globalSetup: '<rootDir>/scripts/bundleServer.mjs',
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  moduleFileExtensions: ['ts', 'tsx', 'js', 'mjs', 'json'],
  // Styles are looked at in a browser.
  moduleNameMapper: { '\\.css$': '<rootDir>/web/testing/noStyle.ts' },
  transform: {
    '^.+\\.(t|j)sx?$': ['@swc/jest', { jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true }, transform: { react: { runtime: 'automatic' } } } }],
  },
  transformIgnorePatterns: ['/node_modules/(?!(pure-rand|react-hotkeys-hook)/)'],
  // A test stands in a context of its own, where every Math.exp goes a long way round: arithmetic took twice as long.
  sandboxInjectedGlobals: ['Math'],
  // The heaviest files are arithmetic; one core less would leave the machine half idle.
  maxWorkers: '100%',
  // Patience only: a slow machine may take its time, what is asserted stays the same.
  testTimeout: 240_000,
}
