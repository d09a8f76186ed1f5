import { found, route } from '@/features/gate/route';
import { openPhoto } from '@/features/photos/server';

/** A kept picture. Its name is its content, so it may be cached for ever. */
export const GET = route<{ hash: string }>('look', async (_request, { hash }) => {
  const photo = found(await openPhoto(hash), 'There is no such picture.');
  return new Response(new Uint8Array(photo.bytes), {
    headers: { 'content-type': photo.kind, 'cache-control': 'private, max-age=31536000, immutable' },
  });
});
