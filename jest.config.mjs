import nextJest from 'next/jest.js';

const withNext = nextJest({ dir: './' });

export default withNext({
  testEnvironment: 'node',
  // Generous: a busy machine is no failure.
  testTimeout: 120_000,
  maxWorkers: 2,
  testMatch: [
    '<rootDir>/{core,formats,application,server,device,print,ui,app,web,cli,demo,scripts,trial,bench}/**/*.test.{ts,tsx}',
  ],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/$1' },
});
