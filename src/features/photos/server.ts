import 'server-only';
import { getPhoto, putPhoto, type PhotoRow } from '@/db/photos';
import { readPicture, type PictureUse } from '@/workers/pictureTask';
import { inThread } from '../gate/threads';
import { LARGEST_BYTES } from '../keepPhoto';

/** A picture as it is kept, or why it is none. */
export async function readPhoto(data: Uint8Array, use: PictureUse): Promise<PhotoRow | { trouble: string }> {
  if (data.byteLength === 0) return { trouble: 'The picture is empty.' };
  if (data.byteLength > LARGEST_BYTES) return { trouble: 'The picture has over 20 MB; take it smaller.' };
  const read = await inThread('picture', { data, use }, readPicture);
  if (!read) return { trouble: 'That file is no picture this server can read; JPEG, PNG and WebP are.' };
  const { hash, width, height, bytes } = read;
  return { hash, kind: 'image/webp', width, height, bytes: Buffer.from(bytes) };
}

/** Keeps a picture under its content hash. */
export async function keepPhoto(
  data: Uint8Array,
  use: PictureUse = 'photo',
): Promise<{ hash: string } | { trouble: string }> {
  const photo = await readPhoto(data, use);
  if ('trouble' in photo) return photo;
  await putPhoto(photo);
  return { hash: photo.hash };
}

export async function openPhoto(hash: string) {
  return /^[0-9a-f]{64}$/.test(hash) ? getPhoto(hash) : null;
}
