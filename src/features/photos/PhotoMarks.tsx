'use client';

import { useRef, useState } from 'react';
import type { EntryOf } from '@/core/job/entries';
import { FIELD, PlainKey } from '@/ui/sheet';
import { Picture } from './Picture';

type Mark = EntryOf<'photo'>['body']['marks'][number];

/** How far an arrow key moves the pencil, in shares of the picture; finer with Shift. */
const STEP = 0.02;
const FINE_STEP = 0.005;
const MOVES: Record<string, Mark['at']> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
const KINDS = { arrow: 'Arrow', ring: 'Ring', text: 'Words' } satisfies Record<Mark['kind'], string>;

const share = (value: number) => Number(Math.min(Math.max(value, 0), 1).toFixed(4));

/**
 * A picture with marks drawn on it: arrows and rings by dragging, words by a tap. By keyboard the arrow keys move the
 * pencil, Enter sets it down and lifts it, Backspace gives the begun mark up, or the last one.
 */
export function PhotoMarks({
  photo,
  marks,
  onChange,
}: {
  photo: string;
  marks: readonly Mark[];
  onChange: (marks: Mark[]) => void;
}) {
  const [kind, setKind] = useState<Mark['kind']>('arrow');
  const [words, setWords] = useState('');
  const [from, setFrom] = useState<Mark['at'] | null>(null);
  const [to, setTo] = useState<Mark['at'] | null>(null);
  const [pencil, setPencil] = useState<Mark['at'] | null>(null);
  /** Nothing can be marked on a picture that does not stand yet: the mark would be elsewhere when it does. */
  const [stands, setStands] = useState(false);
  const frame = useRef<SVGSVGElement>(null);
  const at = (event: React.PointerEvent): Mark['at'] => {
    const box = frame.current!.getBoundingClientRect();
    return [share((event.clientX - box.left) / box.width), share((event.clientY - box.top) / box.height)];
  };
  const lift = () => {
    setFrom(null);
    setTo(null);
  };
  const write = (place: Mark['at']) =>
    onChange([...marks, { kind, at: place, text: words.trim() || 'here' }]);
  const end = () => {
    if (from && kind === 'text') write(from);
    else if (from)
      onChange([...marks, { kind, at: from, to: to ?? [share(from[0] + 0.08), share(from[1] + 0.08)] }]);
    lift();
  };
  const key = (event: React.KeyboardEvent) => {
    const place = pencil ?? [0.5, 0.5];
    const move = MOVES[event.key];
    if (move) {
      const step = event.shiftKey ? FINE_STEP : STEP;
      const next: Mark['at'] = [share(place[0] + move[0] * step), share(place[1] + move[1] * step)];
      setPencil(next);
      if (from) setTo(next);
    } else if (event.key === 'Enter' || event.key === ' ') {
      setPencil(place);
      if (kind === 'text') write(place);
      else if (from) end();
      else setFrom(place);
    } else if (event.key === 'Backspace') {
      if (from) lift();
      else onChange(marks.slice(0, -1));
    } else return;
    event.preventDefault();
  };
  const drawing: Mark[] = from && kind !== 'text' ? [{ kind, at: from, to: to ?? from }] : [];
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-2 py-2" role="group" aria-label="Mark with">
        {(Object.keys(KINDS) as Mark['kind'][]).map((one) => (
          <PlainKey
            key={one}
            className="px-4!"
            aria-pressed={kind === one}
            onClick={() => {
              setKind(one);
              lift();
            }}
          >
            {KINDS[one]}
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
      <div className="flex min-h-0 flex-1 items-center justify-center bg-well">
        <div className="relative max-h-full">
          <Picture
            photo={photo}
            alt="The picture that is marked"
            className="block max-h-[56vh] max-w-full"
            onLoad={() => setStands(true)}
          />
          {stands ? (
            <svg
              ref={frame}
              viewBox="0 0 1000 1000"
              preserveAspectRatio="none"
              className="absolute inset-0 h-full w-full touch-none"
              role="application"
              aria-label="Marks: arrow keys move the pencil, Enter sets it down and lifts it"
              tabIndex={0}
              onKeyDown={key}
              onBlur={() => setPencil(null)}
              onPointerDown={(event) => {
                // A drag that leaves the picture still ends its mark.
                event.currentTarget.setPointerCapture(event.pointerId);
                setPencil(null);
                setTo(null);
                setFrom(at(event));
              }}
              onPointerMove={(event) => from && !pencil && setTo(at(event))}
              onPointerUp={end}
              onPointerCancel={lift}
              data-testid="marks"
            >
              {[...marks, ...drawing].map((mark, index) => (
                <MarkShape key={index} mark={mark} />
              ))}
              {pencil ? <Pencil at={pencil} /> : null}
            </svg>
          ) : null}
        </div>
      </div>
    </div>
  );
}

/** Where the keyboard's pencil stands. */
function Pencil({ at }: { at: Mark['at'] }) {
  const [x, y] = [at[0] * 1000, at[1] * 1000];
  const path = `M${x - 30} ${y}H${x + 30}M${x} ${y - 30}V${y + 30}`;
  return (
    <g data-testid="pencil">
      <path d={path} stroke="#fff" strokeWidth={10} />
      <path d={path} stroke="#2236a6" strokeWidth={4} />
    </g>
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
