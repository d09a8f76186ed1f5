'use client';

import dynamic from 'next/dynamic';
import { useState } from 'react';
import { traceAt, type Trace } from '@/core/trace/trace';
import { quantity } from '@/words/en/readings';
import { timeWords, type markWords } from '@/words/en/traces';
import type { TraceLine } from './TraceChart';

// A canvas has its inks from the page: there is none on the server.
export const TraceChart = dynamic(() => import('./TraceChart').then((one) => one.TraceChart), { ssr: false });

/** The chart with its two cursors, each a slider under it: by finger, mouse or arrow keys. */
export function ShownTrace({
  part,
  shown,
  lines,
  marks,
}: {
  part: string;
  shown: Trace;
  lines: readonly TraceLine[];
  marks: ReturnType<typeof markWords>;
}) {
  const [begin, end] = [shown.seconds[0]!, shown.seconds.at(-1)!];
  const [cursors, setCursors] = useState<[number, number]>([
    begin + 0.25 * (end - begin),
    begin + 0.5 * (end - begin),
  ]);
  const [used, setUsed] = useState(false);
  const values = cursors.map((at) => traceAt(shown, at));
  const move = (which: 0 | 1, at: number) => {
    setUsed(true);
    setCursors((now) => (which === 0 ? [at, now[1]] : [now[0], at]));
  };
  return (
    <>
      <TraceChart
        label={`Current of ${part} over ${timeWords(end - begin)}`}
        lines={lines}
        marks={marks}
        cursors={used ? cursors : []}
      />
      <ul className="flex flex-wrap gap-x-5 text-[15.5px] text-ink2">
        {lines.map(({ name, as }) => (
          <li
            key={name}
            className={as === 'own' ? 'text-pencil' : as === 'expected' ? 'text-copper-ink' : ''}
          >
            {as === 'own' ? 'Full line' : as === 'before' ? 'Dashes' : 'Dots'}: {name}
          </li>
        ))}
      </ul>
      <div className="grid grid-cols-2 gap-x-6">
        {([0, 1] as const).map((which) => (
          <label key={which} className="text-[15.5px]">
            Cursor {which === 0 ? 'A' : 'B'}: <span className="fig">{timeWords(cursors[which] - begin)}</span>
            , <span className="fig">{quantity('amps', values[which]!)}</span>
            <input
              type="range"
              className="block h-8 w-full accent-pencil"
              min={begin}
              max={end}
              step={(end - begin) / 500}
              value={cursors[which]}
              onChange={({ target }) => move(which, Number(target.value))}
            />
          </label>
        ))}
      </div>
      {used ? (
        <p className="text-[15.5px]">
          Between them: <span className="fig">{timeWords(Math.abs(cursors[1] - cursors[0]))}</span>,{' '}
          <span className="fig">{quantity('amps', Math.abs(values[1]! - values[0]!))}</span>
        </p>
      ) : null}
    </>
  );
}
