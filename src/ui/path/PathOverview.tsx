'use client';

import { Minus, Plus } from 'lucide-react';
import type { KeyboardEvent, PointerEvent, RefObject } from 'react';
import type { PathLayout } from '@/core/path/layoutPath';
import type { Standing } from '@/core/path/standing';
import { OVERVIEW_PX } from './overviewHeight';
import { STATE_INK } from './pathInk';
import { PATH_ZOOMS } from './pathZooms';

const KEY = 'flex w-11 items-center justify-center border-l-[1.5px] border-edge disabled:opacity-40';

/** A path longer than its frame, in small: where the doubt sits, and which stretch is on the screen. Press or drag to go there. */
export function PathOverview({
  layout,
  standings,
  frame,
  left,
  width,
  zoom,
  onZoom,
}: {
  layout: PathLayout;
  standings: readonly Standing[];
  /** The element that scrolls. */
  frame: RefObject<HTMLElement | null>;
  /** How far it is scrolled, px. */
  left: number;
  width: number;
  zoom: number;
  onZoom: (zoom: number) => void;
}) {
  const room = width - 88;
  const scale = room / layout.width;
  const goTo = (x: number) => frame.current?.scrollTo({ left: x / scale - width / 2 });
  const onPointer = (event: PointerEvent<SVGSVGElement>) => {
    if (event.type === 'pointermove' && event.buttons === 0) return;
    if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId);
    goTo(event.clientX - event.currentTarget.getBoundingClientRect().left);
  };
  const onKey = (event: KeyboardEvent) => {
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (by === 0) return;
    event.preventDefault();
    event.stopPropagation();
    frame.current?.scrollBy({ left: (by * width) / 3, behavior: 'smooth' });
  };
  const most = Math.max(1, ...standings.map(({ turns }) => turns));
  return (
    <div
      className="absolute inset-x-0 bottom-0 flex border-t-[1.5px] border-rule bg-sheet"
      style={{ height: OVERVIEW_PX }}
      data-testid="overview"
    >
      <svg
        width={room}
        height={OVERVIEW_PX}
        className="cursor-pointer touch-none"
        role="slider"
        tabIndex={0}
        aria-label="Stretch of the path on the screen"
        aria-valuemin={0}
        aria-valuemax={Math.round(layout.width - width)}
        aria-valuenow={Math.round(left)}
        onPointerDown={onPointer}
        onPointerMove={onPointer}
        onKeyDown={onKey}
      >
        {layout.runs.map((run) => {
          const { state, turns } = standings[run.parts[0]!]!;
          const middle = ((run.x1 + run.x2) / 2) * scale;
          return (
            <g key={run.steps[0]!.branch}>
              <line
                x1={run.x1 * scale}
                x2={run.x2 * scale}
                y1={OVERVIEW_PX - 8}
                y2={OVERVIEW_PX - 8}
                stroke={STATE_INK[state]}
                strokeWidth={3}
                strokeDasharray={state === 'held' ? '5 3' : undefined}
              />
              {turns > 0 && state === 'doubt' && !run.again ? (
                <line
                  x1={middle}
                  x2={middle + 3}
                  y1={OVERVIEW_PX - 9}
                  y2={OVERVIEW_PX - 9 - (4 + (14 * turns) / most)}
                  stroke="var(--copper)"
                  strokeWidth={3}
                />
              ) : null}
            </g>
          );
        })}
        <line
          x1={layout.fall.x * scale}
          x2={layout.fall.x * scale}
          y1={4}
          y2={OVERVIEW_PX - 4}
          stroke="var(--ink)"
          strokeWidth={3}
        />
        <rect
          x={left * scale + 1.5}
          y={1.5}
          width={Math.max(12, width * scale - 3)}
          height={OVERVIEW_PX - 3}
          fill="none"
          stroke="var(--pencil)"
          strokeWidth={3}
        />
      </svg>
      <button
        type="button"
        className={KEY}
        aria-label="Path closer together"
        disabled={zoom === 0}
        onClick={() => onZoom(zoom - 1)}
      >
        <Minus size={18} aria-hidden />
      </button>
      <button
        type="button"
        className={KEY}
        aria-label="Path wider apart"
        disabled={zoom === PATH_ZOOMS.length - 1}
        onClick={() => onZoom(zoom + 1)}
      >
        <Plus size={18} aria-hidden />
      </button>
    </div>
  );
}
