import { zaffetConfig } from './setup';

/** Takes the pictures in docs/screenshots from the demo data: `npm run screenshots`. */
export default zaffetConfig(4392, { testDir: './screenshots', outputDir: '../test-results' });
