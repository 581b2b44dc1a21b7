import nextJest from 'next/jest.js';

const withNext = nextJest({ dir: './' });

export default withNext({
  testEnvironment: 'node',
  // Generous: a busy machine is no failure.
  testTimeout: 120_000,
  maxWorkers: 2,
  // A test's file has globals of its own, and looks each up at every use: what computes took five times as
  // long. These are handed to it once.
  sandboxInjectedGlobals: ['Math', 'Number', 'Object', 'Array', 'Float64Array', 'JSON'],
  testMatch: [
    '<rootDir>/{core,formats,application,server,device,print,ui,app,web,cli,demo,scripts,trial,bench}/**/*.test.{ts,tsx}',
  ],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/$1' },
});
