import { zaffetConfig } from './setup';

/** Takes the pictures in docs/screenshots from the demo data: `npm run screenshots`. */
export default zaffetConfig({ testDir: './screenshots', outputDir: '../test-results' });
