import { zaffetConfig } from './setup';

export default zaffetConfig(4393, {
  testDir: './chaos',
  outputDir: '../test-results',
  timeout: 40 * 60_000,
  // Each has a server of its own, to kill.
  webServer: [],
});
