/** One clear line of what to do, then stop. */
export class Stop extends Error {}

export function say(text) {
  process.stdout.write(`spiraxis: ${text}\n`);
}

/** Runs a script's main function; a Stop ends with its one line and status 1. */
export async function run(main) {
  try {
    await main();
  } catch (error) {
    process.stderr.write(`spiraxis: ${error instanceof Stop ? error.message : (error?.stack ?? error)}\n`);
    process.exitCode = 1;
  }
}
