/** How often it is looked at, ms. */
const LOOK_MS = 1000;
/** Whoever asked has been cut off by then (`scripts/serve.mjs`). */
const MOST_SECONDS = 280;

/**
 * Calls `giveUp` once, when work that began now has had its seconds of machine time. Beside others that fill the machine a short work lasts
 * long by the clock, and is no longer for that: what counts is what this process could use, of which the work had no more. The clock ends it
 * where it waits for something that never comes.
 *
 * @param seconds of a core
 * @returns ends the watch
 */
export function afterMachineTime(seconds: number, giveUp: () => void): () => void {
  const begun = performance.now();
  const used = process.cpuUsage();
  const timer = setInterval(() => {
    const passed = (performance.now() - begun) / 1000;
    const { user, system } = process.cpuUsage(used);
    const had = Math.min(passed, (user + system) / 1e6);
    if (had < seconds && passed < Math.max(MOST_SECONDS, seconds)) return;
    clearInterval(timer);
    giveUp();
  }, LOOK_MS);
  return () => clearInterval(timer);
}
