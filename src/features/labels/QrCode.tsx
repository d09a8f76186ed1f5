import 'server-only';
import QRCode from 'qrcode';

/** An address as a QR code, drawn by the server; black on white whatever the theme, so that every reader takes it. */
export async function QrCode({
  address,
  label,
  className = 'size-[112px]',
}: {
  address: string;
  label: string;
  className?: string;
}) {
  const svg = await QRCode.toString(address, {
    type: 'svg',
    margin: 2,
    errorCorrectionLevel: 'M',
    color: { dark: '#000000', light: '#ffffff' },
  });
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
