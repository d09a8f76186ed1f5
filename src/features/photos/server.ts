import 'server-only';
import { createHash } from 'node:crypto';
import sharp from 'sharp';
import { getPhoto, putPhoto } from '@/db/photos';

const LARGEST_BYTES = 20_000_000;
/** Longest side that is kept, px: fine print on a drawing stays legible. */
const LONGEST_SIDE = { photo: 1600, drawing: 2800 } as const;
export type PictureUse = keyof typeof LONGEST_SIDE;
const QUALITY = 80;
/** A picture of more pixels than any camera takes is an attack on memory. */
const MOST_PIXELS = 120_000_000;

/** Keeps a picture: turned upright, scaled, stripped of place and camera, under its content hash. */
export async function keepPhoto(
  data: ArrayBuffer,
  use: PictureUse = 'photo',
): Promise<{ hash: string } | { trouble: string }> {
  if (data.byteLength === 0) return { trouble: 'The picture is empty.' };
  if (data.byteLength > LARGEST_BYTES) return { trouble: 'The picture has over 20 MB; take it smaller.' };
  try {
    const { data: bytes, info } = await sharp(Buffer.from(data), { limitInputPixels: MOST_PIXELS })
      .rotate()
      .resize({
        width: LONGEST_SIDE[use],
        height: LONGEST_SIDE[use],
        fit: 'inside',
        withoutEnlargement: true,
      })
      .webp({ quality: QUALITY })
      .toBuffer({ resolveWithObject: true });
    const hash = createHash('sha256').update(bytes).digest('hex');
    await putPhoto({ hash, kind: 'image/webp', width: info.width, height: info.height, bytes });
    return { hash };
  } catch (error) {
    if (error instanceof Error && /unsupported|Input|pixel|corrupt|bad seek|premature/i.test(error.message)) {
      return { trouble: 'That file is no picture this server can read; JPEG, PNG and WebP are.' };
    }
    throw error;
  }
}

export async function openPhoto(hash: string) {
  return /^[0-9a-f]{64}$/.test(hash) ? getPhoto(hash) : null;
}
