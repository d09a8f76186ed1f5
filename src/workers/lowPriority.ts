import { constants, setPriority } from 'node:os';

/**
 * Puts the thread that calls it behind the server's own loop: heavy work takes what time is left. On Linux a priority is
 * a thread's own; elsewhere it is the process's, and nothing is done.
 */
export function standBack(): void {
  if (process.platform === 'linux') setPriority(0, constants.priority.PRIORITY_LOW);
}
