'use client';

import { useMemo } from 'react';
import { gaugeOn } from '@/core/circuit/medium';
import { findLanes } from '@/core/path/lanes';
import type { GaugeUnit } from '@/core/units/quantities';
import { PanZoom } from '@/ui/PanZoom';
import { SchematicFigure } from '@/ui/schematic/SchematicFigure';
import { Trouble } from '@/ui/sheet';
import type { View } from './DrawHead';
import { DrawnPath } from './DrawnPath';
import type { useSchematic } from './useSchematic';
import type { useTried } from './useTried';

/** The drawing itself, as a schematic or as the path of a job; how to begin while there is none. */
export function DrawingFrame({
  empty,
  view,
  schematic: { drawn, trouble },
  gaugeUnit,
  tried,
  chosen,
  wrong,
  changed,
  onPart,
  onNode,
}: {
  empty: boolean;
  view: View;
  schematic: ReturnType<typeof useSchematic>;
  gaugeUnit: GaugeUnit;
  tried: ReturnType<typeof useTried>;
  /** References of parts: the one that is open, those that something is said against, those that are not as they were. */
  chosen: string | null;
  wrong: readonly string[];
  changed: readonly string[];
  onPart: (ref: string) => void;
  onNode: (node: string) => void;
}) {
  const points = useMemo(() => (drawn ? findLanes(drawn.model).pointOf : undefined), [drawn]);
  const index = (ref: string) => drawn?.model.compiled.partIndex.get(ref) ?? -1;
  return (
    <section
      aria-label="The drawing"
      data-drawing
      className="relative min-h-[260px] flex-[5] max-desk:h-[46dvh] max-desk:flex-none"
    >
      {empty ? (
        <EmptySheet />
      ) : view === 'path' && drawn ? (
        <DrawnPath gaugeUnit={gaugeOn(drawn.model, gaugeUnit)} model={drawn.model} />
      ) : drawn ? (
        <PanZoom width={drawn.schematic.width} height={drawn.schematic.height} label="Schematic">
          <SchematicFigure
            schematic={drawn.schematic}
            layers={{
              ...(points ? { points } : {}),
              ...(tried ?? {}),
              chosen: chosen ? index(chosen) : null,
              wrong: new Set(wrong.map(index)),
              changed: new Set(changed.map(index)),
            }}
            onPart={(at) => onPart(drawn.model.compiled.parts[at]!.part.ref)}
            onNode={(node) => onNode(drawn.model.compiled.nodeNames[node]!)}
          />
        </PanZoom>
      ) : (
        <p className="h-full bg-sheet px-6 py-8 text-[17px]">{trouble ? '' : 'Laying it out.'}</p>
      )}
      {trouble && !empty ? (
        <div className="absolute inset-x-6 bottom-2">
          <Trouble>{trouble}.</Trouble>
        </div>
      ) : null}
    </section>
  );
}

function EmptySheet() {
  return (
    <div className="h-full bg-sheet px-6 py-8">
      <p className="text-[19px] font-[650]">An empty sheet.</p>
      <p className="mt-2 max-w-[720px] text-[17px] text-ink2">
        Type a run from its supply to ground in the line below, as you would say it: battery 12.6, fuse 10,
        wire, seat switch, plug X31, coil 7.4, plug X31, wire, ground. Parts of this machine go by their
        reference.
      </p>
    </div>
  );
}
