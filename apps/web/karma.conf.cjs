const { existsSync } = require('node:fs');

process.env.CHROME_BIN ??= ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'].find(
  (path) => existsSync(path),
);

/** Prints failures and one closing line, so that the whole test run can add the suites up. */
function PlainReporter(base) {
  base(this);
  this.onSpecComplete = (_browser, result) => {
    if (!result.success && !result.skipped) {
      this.write(`FAILED ${[...result.suite, result.description].join(' ')}\n${result.log.join('\n')}\n`);
    }
  };
  this.onRunComplete = (browsers, results) => {
    let skipped = 0;
    browsers.forEach((browser) => {
      skipped += browser.lastResult.skipped;
    });
    this.write(`web: ${results.success} passed, ${results.failed} failed, ${skipped} skipped\n`);
  };
}
PlainReporter.$inject = ['baseReporterDecorator'];

module.exports = (config) =>
  config.set({
    frameworks: ['jasmine'],
    reporters: ['plain'],
    logLevel: config.LOG_WARN,
    singleRun: true,
    plugins: [
      require('karma-jasmine'),
      require('karma-chrome-launcher'),
      { 'reporter:plain': ['type', PlainReporter] },
    ],
    browsers: ['ChromeHeadlessRoot'],
    client: { jasmine: { timeoutInterval: 60_000 } },
    captureTimeout: 120000,
    browserNoActivityTimeout: 120000,
    customLaunchers: {
      ChromeHeadlessRoot: {
        base: 'ChromeHeadless',
        flags: [
          '--no-sandbox',
          '--disable-quic',
          '--disable-background-networking',
          '--disable-component-update',
          '--disable-sync',
        ],
      },
    },
  });
