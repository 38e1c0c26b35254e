const { writeFileSync } = require('node:fs');

process.env.CHROME_BIN ??= '/usr/bin/chromium';

const minutes = (n) => n * 60_000;

/** Leaves the numbers for the test command. */
function CountReporter(baseReporterDecorator) {
  baseReporterDecorator(this);
  const failures = [];
  this.onSpecComplete = (_browser, { success, skipped, suite, description, log = [] }) => {
    if (!success && !skipped) failures.push(`${[...suite, description].join(' ')}: ${(log[0] ?? '').split('\n')[0]}`);
  };
  this.onRunComplete = (_browsers, results) => {
    const file = process.env.DIAL_GAUGE_COUNTS;
    const counts = { passed: results.success, failed: results.failed + (results.error ? 1 : 0), failures };
    if (file) writeFileSync(file, JSON.stringify(counts));
  };
}
CountReporter.$inject = ['baseReporterDecorator'];

module.exports = (config) =>
  config.set({
    frameworks: ['jasmine'],
    plugins: [
      require('karma-jasmine'),
      require('karma-chrome-launcher'),
      require('karma-jasmine-html-reporter'),
      require('karma-coverage'),
      { 'reporter:count': ['type', CountReporter] },
    ],
    reporters: ['dots', 'count'],
    hostname: '127.0.0.1',
    listenAddress: '127.0.0.1',
    browsers: ['Chromium'],
    customLaunchers: {
      Chromium: {
        base: 'ChromeHeadless',
        flags: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu', '--disable-background-networking', '--window-size=1280,800'],
      },
    },
    // Time limits end what hangs. A loaded machine needs minutes to load the bundle or to answer a ping.
    client: { jasmine: { timeoutInterval: 120_000 } },
    pingTimeout: minutes(10),
    captureTimeout: minutes(10),
    browserNoActivityTimeout: minutes(10),
    browserDisconnectTimeout: minutes(5),
    browserDisconnectTolerance: 3,
    restartOnFileChange: false,
  });
