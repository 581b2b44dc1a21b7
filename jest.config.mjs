import nextJest from 'next/jest.js';

const withNext = nextJest({ dir: './' });

export default withNext({
  testEnvironment: 'node',
  testMatch: ['<rootDir>/{core,formats,server,ui,app,cli,demo,scripts,bench}/**/*.test.{ts,tsx}'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/$1' },
});
