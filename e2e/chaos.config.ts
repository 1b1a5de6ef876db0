import { zaffetConfig } from './setup';

export default zaffetConfig({
  testDir: './chaos',
  outputDir: '../test-results',
  timeout: 40 * 60_000,
});
