import { FIRST_NUMBER_OF_DEVICE, jobName } from './job-number';

test('a job without a number of the server is a new job', () => {
  expect(jobName(12)).toBe('Job 12');
  expect(jobName(FIRST_NUMBER_OF_DEVICE)).toBe('New job');
  expect(jobName(FIRST_NUMBER_OF_DEVICE - 1)).toBe(`Job ${FIRST_NUMBER_OF_DEVICE - 1}`);
});
