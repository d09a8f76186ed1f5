import { askStatus } from './askServer';

/** A large picture over a slow radio link takes its time. */
const PATIENCE_MS = 120_000;
/** As large as the server takes one. */
export const LARGEST_BYTES = 20_000_000;

/** Sends a picture to the server. Gives its content hash, or one line of trouble. */
export async function keepPhoto(
  picture: Blob,
  name: string,
  use: 'photo' | 'drawing' = 'photo',
): Promise<{ hash: string } | { trouble: string; away?: true }> {
  if (picture.size > LARGEST_BYTES) return { trouble: `${name} has over 20 MB; take it smaller.` };
  try {
    const { status, answer } = await askStatus<{ hash?: string; message?: string }>(
      `/api/photos?use=${use}`,
      {
        method: 'POST',
        body: picture,
        patienceMs: PATIENCE_MS,
      },
    );
    if (status >= 500 || status === 429)
      return { away: true, trouble: `${name} is not kept yet: the server failed.` };
    return answer?.hash ? { hash: answer.hash } : { trouble: answer?.message ?? 'The picture was refused.' };
  } catch {
    return {
      away: true,
      trouble: `The server does not answer: ${name} is not kept yet. Choose it again when it is back.`,
    };
  }
}
