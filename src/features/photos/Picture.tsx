'use client';

import { useEffect, useState } from 'react';
import { useDesk } from '../desk/desk';

/** A picture of the job: from the server, or from this browser while the server does not have it yet. */
export function Picture({ photo, alt = '', className }: { photo: string; alt?: string; className: string }) {
  const { log } = useDesk();
  const src = useAddress(photo, log.pictures.get(photo));
  /* eslint-disable-next-line @next/next/no-img-element -- kept by content: the address never changes its picture, so the browser's own cache is enough */
  return <img src={src} alt={alt} className={className} draggable={false} />;
}

function useAddress(photo: string, kept: Blob | undefined): string {
  const [own, setOwn] = useState<string | null>(null);
  useEffect(() => {
    if (!kept) return;
    const address = URL.createObjectURL(kept);
    setOwn(address);
    return () => {
      URL.revokeObjectURL(address);
      setOwn(null);
    };
  }, [kept]);
  return own ?? (kept ? '' : `/api/photos/${photo}`);
}
