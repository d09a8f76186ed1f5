import 'server-only';
import { qrSvg } from './qrSvg';

/** An address as a QR code, drawn by the server. */
export async function QrCode({
  address,
  label,
  className = 'size-[112px]',
}: {
  address: string;
  label: string;
  className?: string;
}) {
  const svg = await qrSvg(address);
  return (
    <span
      role="img"
      aria-label={label}
      className={`block shrink-0 ${className}`}
      // The library's own drawing of a text of ours: squares and nothing else.
      dangerouslySetInnerHTML={{ __html: svg }}
    />
  );
}
