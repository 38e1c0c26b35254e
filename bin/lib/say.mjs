/** Progress lines: what is being done, in plain words. */
export const say = (text) => process.stdout.write(`${text}\n`);

/** On a terminal the seconds run in the line itself; elsewhere a line comes every so often. */
const LINE_EVERY_MS = 15_000;

/**
 * Says that something long is being done, and for how long so far.
 *
 * @returns what the work comes to
 */
export async function during(text, work) {
  const begun = Date.now();
  const seconds = () => Math.round((Date.now() - begun) / 1000);
  const isTerminal = process.stdout.isTTY === true;
  if (isTerminal) process.stdout.write(`${text} …`);
  else say(`${text} …`);
  const timer = setInterval(
    () => (isTerminal ? process.stdout.write(`\r${text} … ${seconds()} s`) : say(`${text} … ${seconds()} s`)),
    isTerminal ? 1_000 : LINE_EVERY_MS,
  );
  try {
    return await work();
  } finally {
    clearInterval(timer);
    if (isTerminal) process.stdout.write(`\r${text}: ${seconds()} s \n`);
  }
}

/** The end of what a command printed: its last lines that say something. */
export function lastLines(output, count = 12) {
  const lines = output.split('\n').filter((line) => line.trim() !== '');
  return lines.length > 0 ? lines.slice(-count).join('\n') : 'It printed nothing.';
}

/** A failure the person can act on. Ends the command without a stack. */
export class Stop extends Error {}

/** Runs the whole of a command; a Stop is told in words, anything else with its stack. */
export async function main(work) {
  try {
    await work();
  } catch (error) {
    process.stderr.write(`\n${error instanceof Stop ? error.message : (error?.stack ?? error)}\n`);
    process.exitCode = 1;
  }
}
