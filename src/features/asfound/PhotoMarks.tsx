'use client';

import { useRef, useState } from 'react';
import type { EntryOf } from '@/core/job/entries';
import { FIELD, PlainKey } from '@/ui/sheet';
import { Picture } from '../photos/Picture';

type Mark = EntryOf<'photo'>['body']['marks'][number];

/** A picture with marks drawn on it: arrows and rings by dragging, words by a tap. */
export function PhotoMarks({
  photo,
  marks,
  onChange,
}: {
  photo: string;
  marks: readonly Mark[];
  onChange?: (marks: Mark[]) => void;
}) {
  const [kind, setKind] = useState<Mark['kind']>('arrow');
  const [words, setWords] = useState('');
  const [from, setFrom] = useState<Mark['at'] | null>(null);
  const [to, setTo] = useState<Mark['at'] | null>(null);
  const frame = useRef<SVGSVGElement>(null);
  const at = (event: React.PointerEvent): Mark['at'] => {
    const box = frame.current!.getBoundingClientRect();
    const share = (value: number) => Number(Math.min(Math.max(value, 0), 1).toFixed(4));
    return [share((event.clientX - box.left) / box.width), share((event.clientY - box.top) / box.height)];
  };
  const end = () => {
    if (from && onChange) {
      const mark: Mark =
        kind === 'text'
          ? { kind, at: from, text: words.trim() || 'here' }
          : { kind, at: from, to: to ?? [Math.min(from[0] + 0.08, 1), Math.min(from[1] + 0.08, 1)] };
      onChange([...marks, mark]);
    }
    setFrom(null);
    setTo(null);
  };
  const drawing: Mark[] = from && kind !== 'text' ? [{ kind, at: from, to: to ?? from }] : [];
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      {onChange ? (
        <div className="flex flex-wrap items-center gap-2 py-2" role="group" aria-label="Mark with">
          {(['arrow', 'ring', 'text'] as const).map((one) => (
            <PlainKey key={one} className="px-4!" aria-pressed={kind === one} onClick={() => setKind(one)}>
              {{ arrow: 'Arrow', ring: 'Ring', text: 'Words' }[one]}
            </PlainKey>
          ))}
          {kind === 'text' ? (
            <input
              aria-label="Words to write on it"
              className={`${FIELD} w-[220px]!`}
              maxLength={60}
              value={words}
              onChange={(event) => setWords(event.target.value)}
            />
          ) : null}
          <PlainKey
            className="ml-auto px-4!"
            disabled={marks.length === 0}
            onClick={() => onChange(marks.slice(0, -1))}
          >
            Last mark off
          </PlainKey>
        </div>
      ) : null}
      <div className="flex min-h-0 flex-1 items-center justify-center bg-well">
        <div className="relative max-h-full">
          <Picture photo={photo} alt="The picture that is marked" className="block max-h-[56vh] max-w-full" />
          <svg
            ref={frame}
            viewBox="0 0 1000 1000"
            preserveAspectRatio="none"
            className="absolute inset-0 h-full w-full touch-none"
            onPointerDown={(event) => onChange && setFrom(at(event))}
            onPointerMove={(event) => from && setTo(at(event))}
            onPointerUp={end}
            data-testid="marks"
          >
            {[...marks, ...drawing].map((mark, index) => (
              <MarkShape key={index} mark={mark} />
            ))}
          </svg>
        </div>
      </div>
    </div>
  );
}

/** Pencil over a pale edge, so that it shows on any picture. */
function MarkShape({ mark: { kind, at, to, text } }: { mark: Mark }) {
  const [x, y] = [at[0] * 1000, at[1] * 1000];
  const [x2, y2] = to ? [to[0] * 1000, to[1] * 1000] : [x, y];
  if (kind === 'text') {
    return (
      <text
        x={x}
        y={y}
        fontSize={44}
        fontWeight={800}
        fill="#2236a6"
        stroke="#fff"
        strokeWidth={9}
        paintOrder="stroke"
      >
        {text}
      </text>
    );
  }
  if (kind === 'ring') {
    const shape = {
      cx: (x + x2) / 2,
      cy: (y + y2) / 2,
      rx: Math.abs(x2 - x) / 2,
      ry: Math.abs(y2 - y) / 2,
      fill: 'none',
    };
    return (
      <>
        <ellipse {...shape} stroke="#fff" strokeWidth={14} />
        <ellipse {...shape} stroke="#2236a6" strokeWidth={8} />
      </>
    );
  }
  const angle = Math.atan2(y2 - y, x2 - x);
  const barb = (turn: number) => `${x2 - 42 * Math.cos(angle + turn)} ${y2 - 42 * Math.sin(angle + turn)}`;
  const path = `M${x} ${y}L${x2} ${y2}M${barb(0.5)}L${x2} ${y2}L${barb(-0.5)}`;
  return (
    <>
      <path d={path} fill="none" stroke="#fff" strokeWidth={16} strokeLinecap="round" />
      <path d={path} fill="none" stroke="#2236a6" strokeWidth={9} strokeLinecap="round" />
    </>
  );
}
