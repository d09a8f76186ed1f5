'use client';

import { useMemo, useRef, useState } from 'react';
import type { CircuitModel } from '@/core/circuit/model';
import type { GaugeMark } from '@/core/units/quantities';
import { findLanes } from '@/core/path/lanes';
import { layoutPath } from '@/core/path/layoutPath';
import { PanZoom } from '@/ui/PanZoom';
import { PathFigure } from '@/ui/path/PathFigure';
import { Nothing } from '@/ui/sheet';
import { useBox } from '@/ui/useBox';
import { evenStandings } from '@/core/path/evenStandings';

const NONE: ReadonlySet<number> = new Set();

/** How the path of this drawing will stand on the test screen: no doubt wound on it yet. */
export function DrawnPath({ model, gaugeUnit }: { model: CircuitModel; gaugeUnit: GaugeMark }) {
  const frame = useRef<HTMLDivElement>(null);
  const { width } = useBox(frame);
  const lanes = useMemo(() => findLanes(model), [model]);
  const [chosen, setChosen] = useState<string | null>(null);
  const lane = lanes.lanes.find(({ id }) => id === chosen) ?? lanes.lanes[0];
  const standings = useMemo(
    () => evenStandings(model.compiled.parts.length).map((one) => ({ ...one, turns: 0 })),
    [model],
  );
  const layout = useMemo(
    () => (lane ? layoutPath(model, lanes, lane, { width, standings, asked: [] }) : null),
    [model, lanes, lane, width, standings],
  );
  return (
    <div ref={frame} className="relative h-full w-full bg-sheet">
      {lanes.lanes.length > 1 ? (
        <label className="absolute bottom-2 left-6 z-10 flex items-center gap-2 bg-sheet text-[15.5px]">
          Lane
          <select
            className="min-h-11 max-w-[240px] border-[1.5px] border-edge bg-sheet px-2"
            value={lane?.id ?? ''}
            onChange={(event) => setChosen(event.target.value)}
          >
            {lanes.lanes.map(({ id, load }) => (
              <option key={id} value={id}>
                {id} {model.compiled.parts[load.part]!.part.label ?? ''}
              </option>
            ))}
          </select>
        </label>
      ) : null}
      {layout ? (
        <PanZoom width={layout.width} height={layout.height} label="Path">
          <PathFigure
            layout={layout}
            parts={model.compiled.parts}
            alternating={model.compiled.alternating}
            gaugeUnit={gaugeUnit}
            standings={standings}
            pins={[]}
            spans={[]}
            leads={null}
            tag={{ left: 0, right: 0, drop: 0, scrolled: 0 }}
            typed=""
            statement={[]}
            noReach={NONE}
            apart={NONE}
            closed={NONE}
            dead={false}
            plain
            nameOf={(node) => model.compiled.nodeNames[node] ?? ''}
            stale={false}
            onPoint={() => undefined}
            onLane={setChosen}
            onRun={() => undefined}
          />
        </PanZoom>
      ) : (
        <div className="px-6">
          <Nothing>No load yet that a path could be drawn to.</Nothing>
        </div>
      )}
    </div>
  );
}
