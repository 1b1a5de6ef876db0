import { zaffetConfig } from './setup';

export default zaffetConfig(4391, { testDir: './journeys', outputDir: '../test-results' });
