/** Progress lines: what is being done, in plain words. */
export const say = (text) => process.stdout.write(`${text}\n`);

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
