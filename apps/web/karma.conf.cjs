const { existsSync } = require('node:fs');

process.env.CHROME_BIN ??= ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'].find(existsSync);

module.exports = config =>
  config.set({
    frameworks: ['jasmine'],
    plugins: [require('karma-jasmine'), require('karma-chrome-launcher')],
    browsers: ['Headless'],
    customLaunchers: {
      Headless: {
        base: 'ChromeHeadless',
        flags: [
          '--no-sandbox',
          '--disable-gpu',
          '--disable-background-networking',
          '--disable-component-update',
          '--disable-sync',
          '--no-first-run',
          '--disable-quic',
        ],
      },
    },
    reporters: ['dots'],
    restartOnFileChange: false,
    browserNoActivityTimeout: 120000,
  });
