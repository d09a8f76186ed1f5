import 'server-only';
import QRCode from 'qrcode';

/** A text as a QR code; black on white whatever the theme, so that every reader takes it. */
export function qrSvg(text: string): Promise<string> {
  return QRCode.toString(text, {
    type: 'svg',
    margin: 2,
    errorCorrectionLevel: 'M',
    color: { dark: '#000000', light: '#ffffff' },
  });
}
