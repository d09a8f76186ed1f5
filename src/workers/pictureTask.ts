import { createHash } from 'node:crypto';
import sharp from 'sharp';

/** Longest side that is kept, px: fine print on a drawing stays legible. */
const LONGEST_SIDE = { photo: 1600, drawing: 2800 } as const;
export type PictureUse = keyof typeof LONGEST_SIDE;
const QUALITY = 80;
/** Of six: twice as fast as the usual four, and a twentieth larger. */
const EFFORT = 2;
// One picture at a time, and each on one core: the others belong to whoever reads and writes.
sharp.concurrency(1);
sharp.cache(false);
/** A picture of more pixels than any camera takes is an attack on memory. */
const MOST_PIXELS = 120_000_000;

export interface PictureTask {
  data: Uint8Array;
  use: PictureUse;
}
export interface ReadPicture {
  hash: string;
  width: number;
  height: number;
  bytes: Uint8Array;
}

/** A picture turned upright, scaled, stripped of place and camera; null where it is none that can be read. */
export async function readPicture({ data, use }: PictureTask): Promise<ReadPicture | null> {
  try {
    const { data: bytes, info } = await sharp(data, { limitInputPixels: MOST_PIXELS })
      .rotate()
      .resize({
        width: LONGEST_SIDE[use],
        height: LONGEST_SIDE[use],
        fit: 'inside',
        withoutEnlargement: true,
      })
      .webp({ quality: QUALITY, effort: EFFORT })
      .toBuffer({ resolveWithObject: true });
    const hash = createHash('sha256').update(bytes).digest('hex');
    return { hash, width: info.width, height: info.height, bytes };
  } catch (error) {
    // The library names its errors by words alone; anything else is the server's own fault and is said so.
    if (
      error instanceof Error &&
      /unsupported|Input|pixel|corrupt|bad seek|premature|Vips/i.test(error.message)
    )
      return null;
    throw error;
  }
}
