import type { ReactNode } from 'react';
import { QrCode } from './QrCode';

/** A label to cut out: what it is on in large letters, and a code that opens it. */
export function Label({
  title,
  lines,
  address,
}: {
  title: string;
  lines: readonly ReactNode[];
  address: string;
}) {
  return (
    <li className="flex break-inside-avoid items-center gap-3 border-2 border-ink p-2.5">
      <QrCode address={address} label={`Code that opens ${title}`} />
      <div className="min-w-0">
        <p className="fig-bold text-[23px] leading-[27px] break-words">{title}</p>
        {lines.map((line, at) => (
          <p key={at} className="text-[15.5px] leading-[19px] break-words">
            {line}
          </p>
        ))}
      </div>
    </li>
  );
}

/** Said where the codes lead nowhere but to this device. */
export function OnlyHere() {
  return (
    <p role="note" className="bg-well px-4 py-2 text-[16px] print:hidden">
      These codes lead to this very device. Open the page under the shed’s own name, or set SPIRAXIS_ORIGIN,
      before you print them.
    </p>
  );
}
