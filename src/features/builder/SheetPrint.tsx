'use client';

import { useRef } from 'react';
import { isAssumed } from '@/core/circuit/assumed';
import type { GaugeMark } from '@/core/units/quantities';
import { PrintKey } from '@/ui/PrintKey';
import { saveSvg } from '@/ui/saveSvg';
import { SchematicFigure } from '@/ui/schematic/SchematicFigure';
import { DEFERENCE, Heading, PlainKey } from '@/ui/sheet';
import type { OpenSheet } from './sheet';
import { pressureWords } from '@/words/en/readings';
import { KIND_NAMES } from '@/words/en/drawing';

/** A function's drawing as a sheet of paper: the schematic, its parts with what they should read, its wires and points. */
export function SheetPrint({
  machine,
  name,
  version,
  kept,
  circuit,
  schematic,
  points,
  nodes,
  gaugeUnit,
}: OpenSheet) {
  const frame = useRef<HTMLDivElement>(null);
  const wires = circuit.parts.filter(({ kind }) => kind === 'wire');
  const parts = circuit.parts.filter(({ kind }) => kind !== 'wire' && kind !== 'pin');
  return (
    <div className="px-6 pb-10 max-tablet:px-3 print:p-0">
      <div className="flex flex-wrap items-end justify-between gap-3 py-3">
        <p className="text-[16px]">
          {machine.code} {machine.name}. Version {version}
          {kept ? `, ${kept.person ? `${kept.person}, ` : ''}${kept.day}` : ''}.
        </p>
        <span className="flex gap-3 print:hidden">
          <PlainKey
            onClick={() => {
              const figure = frame.current?.querySelector('svg');
              if (figure)
                saveSvg(figure, `${machine.code}-${name}`.toLowerCase().replace(/[^a-z0-9]+/g, '-') + '.svg');
            }}
          >
            SVG
          </PlainKey>
          <PrintKey />
        </span>
      </div>
      <div
        ref={frame}
        className="overflow-x-auto border-y-2 border-ink bg-sheet py-3 print:overflow-visible [&_svg]:h-auto [&_svg]:max-w-full"
      >
        <SchematicFigure schematic={schematic} layers={{ points: new Map(points) }} />
      </div>
      <div className="grid gap-x-9 desk:grid-cols-2 print:grid-cols-2">
        <section aria-labelledby="sheet-parts">
          <Heading id="sheet-parts">Parts</Heading>
          <ul className="text-[15.5px]">
            {parts.map((part) => (
              <li
                key={part.ref}
                className="grid grid-cols-[72px_minmax(0,1fr)_auto] gap-x-3 border-b border-rule py-1"
              >
                <span className="fig-bold">{part.ref}</span>
                <span>
                  {part.label ?? KIND_NAMES[part.kind]}
                  {part.place ? <span className="text-ink2">, {part.place}</span> : null}
                </span>
                <span className="fig">{ratingOf(part, gaugeUnit)}</span>
              </li>
            ))}
          </ul>
        </section>
        <div>
          <section aria-labelledby="sheet-wires">
            <Heading id="sheet-wires">Wires</Heading>
            <ul className="text-[15.5px]">
              {wires.map((wire) => (
                <li
                  key={wire.ref}
                  className="grid grid-cols-[72px_minmax(0,1fr)_auto] gap-x-3 border-b border-rule py-1"
                >
                  <span className="fig-bold">{wire.ref}</span>
                  <span className="fig">{Object.values(wire.nodes).join(' to ')}</span>
                  <span className="text-ink2">
                    {wire.kind === 'wire' ? [wire.mark, wire.colour].filter(Boolean).join(' ') : ''}
                  </span>
                </li>
              ))}
            </ul>
          </section>
          <section aria-labelledby="sheet-points" className="mt-4">
            <Heading id="sheet-points">Test points</Heading>
            <p className="columns-2 text-[15.5px]">
              {nodes.map(({ point, name: node }) => (
                <span key={point} className="block">
                  <span className="fig-bold inline-block w-9">{point}</span>{' '}
                  <span className="fig">{node}</span>
                </span>
              ))}
            </p>
          </section>
        </div>
      </div>
      <p className="mt-4 text-[15.5px] text-ink2">{DEFERENCE}</p>
    </div>
  );
}

const NOT_SAID = 'not said';

/** The one figure that a part is bought by. */
function ratingOf(part: OpenSheet['circuit']['parts'][number], gaugeUnit: GaugeMark): string {
  if ('volts' in part) return isAssumed(part, 'volts') ? NOT_SAID : `${part.volts} V`;
  if ('amps' in part) return isAssumed(part, 'amps') ? NOT_SAID : `${part.amps} A`;
  if (isAssumed(part, 'ohms')) return NOT_SAID;
  if ('ohms' in part && part.ohms !== undefined && part.kind !== 'switch') return `${part.ohms} Ω`;
  if ('kPa' in part) return isAssumed(part, 'kPa') ? NOT_SAID : pressureWords(part.kPa, gaugeUnit);
  if (part.kind === 'valve') return part.ways;
  return '';
}
