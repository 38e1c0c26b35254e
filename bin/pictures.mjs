/* global Blob, btoa, document, MediaRecorder */
import { mkdirSync, writeFileSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { anglesAt, DEEPEST, draw, landmarksOf, SIZE, TIMES } from './lib/drawn.mjs';
import { needDebian, needNode, needPackages } from './lib/need.mjs';
import { inRoot } from './lib/paths.mjs';
import { main, say } from './lib/say.mjs';

/** Frames a second of the clip. */
const RATE = 25;

/** The still and the clip of the demo, drawn from known angles: nobody was pictured. */
await main(async () => {
  needNode();
  await needDebian('chromium');
  await needPackages();
  const folder = inRoot('web/public/drawn');
  mkdirSync(folder, { recursive: true });
  const browser = await chromium.launch({ executablePath: process.env.CHROME_BIN ?? '/usr/bin/chromium', args: ['--no-sandbox'] });
  try {
    const page = await browser.newPage();
    const frames = Array.from({ length: Math.round(TIMES.end * RATE) }, (_, n) => landmarksOf(anglesAt(n / RATE)));
    const [still, clip] = await page.evaluate(
      async ({ size, text, deepest, all, rate }) => {
        const paint = new Function(`return ${text}`)();
        const canvas = Object.assign(document.createElement('canvas'), size);
        const context = canvas.getContext('2d');
        paint(context, size, deepest);
        const png = canvas.toDataURL('image/png');
        const stream = canvas.captureStream(0);
        const recorder = new MediaRecorder(stream, { mimeType: 'video/webm;codecs=vp9', videoBitsPerSecond: 900_000 });
        const parts = [];
        recorder.ondataavailable = ({ data }) => parts.push(data);
        recorder.start();
        const begun = performance.now();
        for (const [n, points] of all.entries()) {
          const wait = begun + (n * 1000) / rate - performance.now();
          if (wait > 0) await new Promise((resolve) => setTimeout(resolve, wait));
          paint(context, size, points);
          stream.getVideoTracks()[0].requestFrame();
        }
        const stopped = new Promise((resolve) => (recorder.onstop = resolve));
        recorder.stop();
        await stopped;
        const bytes = new Uint8Array(await new Blob(parts).arrayBuffer());
        let letters = '';
        for (const byte of bytes) letters += String.fromCharCode(byte);
        return [png.split(',')[1], btoa(letters)];
      },
      { size: SIZE, text: draw.toString(), deepest: landmarksOf(DEEPEST), all: frames, rate: RATE },
    );
    writeFileSync(`${folder}/squat.png`, Buffer.from(still, 'base64'));
    writeFileSync(`${folder}/squat.webm`, Buffer.from(clip, 'base64'));
    say('web/public/drawn: squat.png, squat.webm');
  } finally {
    await browser.close();
  }
});
