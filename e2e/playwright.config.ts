import { availableParallelism } from 'node:os';
import { zaffetConfig } from './setup';

export default zaffetConfig({
  testDir: './journeys',
  outputDir: '../test-results',
  workers: Math.min(2, availableParallelism()),
});
