import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import { inRoot } from '../bin/lib/paths.mjs';

const RESAMPLES = 10_000;

const bundle = async (entry, globalName) => {
  const { outputFiles } = await build({
    entryPoints: [inRoot('bench', entry)],
    bundle: true,
    write: false,
    format: 'iife',
    globalName,
    platform: 'browser',
    minify: true,
    alias: { '@dial-gauge/core/names': inRoot('core/src/names.ts'), '@dial-gauge/core': inRoot('core/src/index.ts') },
    logLevel: 'warning',
  });
  return outputFiles[0].text;
};

/**
 * The resamples of a study in a worker of the browser by the core (all six
 * coefficients and both errors), beside one coefficient of the same resamples
 * on the page itself by a general statistics library.
 */
export async function benchBootstrap() {
  const [worker, page] = [await bundle('bootstrap-worker.ts'), await bundle('bootstrap-page.ts', 'bench')];
  const browser = await chromium.launch({
    executablePath: process.env.CHROME_BIN ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu', '--disable-background-networking'],
  });
  try {
    const tab = await browser.newPage();
    await tab.setContent('<p>bench</p>');
    // A script, not evaluate(): what it defines is to stay.
    await tab.addScriptTag({ content: page });
    return { resamples: RESAMPLES, ...(await tab.evaluate(([source, n]) => globalThis.bench.measure(source, n), [worker, RESAMPLES])) };
  } finally {
    await browser.close();
  }
}
