'use client';

import { useEffect, useState } from 'react';
import { useDesk } from '../desk/desk';

/** A picture of the job: from this browser where it was taken here, else from the server. */
export function Picture({
  photo,
  alt = '',
  className,
  onLoad,
}: {
  photo: string;
  alt?: string;
  className: string;
  /** It stands, in its size. */
  onLoad?: () => void;
}) {
  const { log } = useDesk();
  const src = useAddress(photo, log.pictures.get(photo));
  /* eslint-disable-next-line @next/next/no-img-element -- kept by content: the address never changes its picture, so the browser's own cache is enough */
  return <img src={src} alt={alt} className={className} draggable={false} onLoad={onLoad} />;
}

function useAddress(photo: string, kept: Blob | undefined): string | undefined {
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
  return own ?? (kept ? undefined : `/api/photos/${photo}`);
}
