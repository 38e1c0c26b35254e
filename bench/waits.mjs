import { parentPort, workerData } from 'node:worker_threads';
import { signedIn } from './lib.mjs';

/** Somebody else, in a thread of its own so that nothing the bench reads meanwhile is counted: asks for a small thing until told to stop, and answers how long each took. */
const api = await signedIn(workerData.url);
const waits = [];
let going = true;
parentPort.once('message', () => (going = false));
for (let n = 0; n < 30; n += 1) await api('GET', '/session');
parentPort.postMessage('going');
while (going) {
  const start = performance.now();
  await api('GET', '/session');
  waits.push(performance.now() - start);
  await new Promise((resolve) => setTimeout(resolve, 2));
}
parentPort.postMessage(waits);
