import { chromium } from '@playwright/test';

/** Bytes over the wire until a page is quiet, as the browser counts them. */
export async function firstScreenBytes(url) {
  const browser = await chromium.launch({
    executablePath: process.env.CHROME_BIN ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu', '--disable-background-networking'],
  });
  try {
    const page = await browser.newPage();
    const network = await page.context().newCDPSession(page);
    await network.send('Network.enable');
    const types = new Map();
    const sums = {};
    network.on('Network.responseReceived', ({ requestId, type }) => types.set(requestId, type));
    network.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
      const type = types.get(requestId) ?? 'Other';
      sums[type] = (sums[type] ?? 0) + encodedDataLength;
    });
    await page.goto(url, { waitUntil: 'networkidle' });
    return { total: Object.values(sums).reduce((a, b) => a + b, 0), sums };
  } finally {
    await browser.close();
  }
}
