import { zaffetConfig } from './setup';

export default zaffetConfig({ testDir: './journeys', outputDir: '../test-results' });
