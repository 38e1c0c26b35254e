const { writeFileSync } = require('node:fs');

process.env.CHROME_BIN ??= '/usr/bin/chromium';

/** Leaves the numbers for the test command. */
function CountReporter(baseReporterDecorator) {
  baseReporterDecorator(this);
  this.onRunComplete = (_browsers, results) => {
    const file = process.env.DIAL_GAUGE_COUNTS;
    if (file) writeFileSync(file, JSON.stringify({ passed: results.success, failed: results.failed + (results.error ? 1 : 0) }));
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
    // A slow machine may keep the browser waiting; it is asked again before the run is given up.
    browserDisconnectTimeout: 20_000,
    browserNoActivityTimeout: 120_000,
    restartOnFileChange: false,
  });
