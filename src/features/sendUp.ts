import { askServer, NotAnswered } from './askServer';

interface Sending {
  /** Over a slow link a large file takes its time. */
  patienceMs: number;
  /** What is said where the server did not answer; where it refused its own words are. */
  silent: string;
  /** Of text; bytes need none. */
  type?: 'text/csv';
}

/** Sends a file that somebody chose to the server. Gives what it answers, or one line of trouble. */
export async function sendUp<T extends object>(
  address: string,
  file: File,
  { patienceMs, silent, type }: Sending,
): Promise<T | { trouble: string }> {
  let body: File | string = file;
  try {
    if (type !== undefined) body = await file.text();
  } catch {
    return { trouble: `${file.name} could not be read. Choose it again.` };
  }
  try {
    return await askServer<T>(address, {
      method: 'POST',
      ...(type === undefined ? {} : { headers: { 'content-type': type } }),
      body,
      patienceMs,
    });
  } catch (error) {
    const refused = error instanceof NotAnswered && error.status > 0;
    return { trouble: refused ? error.message : silent };
  }
}
