'use client';

import type { Test } from '@/core/circuit/schema';
import { isDeadKind } from '@/core/circuit/testPlace';
import type { Lane } from '@/core/path/lane';
import { PathFigure } from '@/ui/path/PathFigure';
import type { PathFigureProps } from '@/ui/path/pathProps';
import { lazyPart } from '@/ui/lazyPart';
import { OVERVIEW_PX } from '@/ui/path/overviewHeight';
import { useNarrow } from '@/ui/useNarrow';
import { apartParts, closedParts } from './pins';
import type { PathView } from './usePathView';
import type { Speaker } from '@/words/en/readings';

const PathOverview = lazyPart(() => import('@/ui/path/PathOverview').then((one) => one.PathOverview));
const PhonePath = lazyPart(() => import('@/ui/path/PhonePath').then((one) => one.PhonePath));
const TAG_DROP = 20;
export const EDGE = 24;

export interface PathBandProps extends Pick<
  PathFigureProps,
  'standings' | 'pins' | 'spans' | 'leads' | 'gauge' | 'typed' | 'statement' | 'stale' | 'onPoint' | 'onLane'
> {
  speaker: Speaker;
  lane: Lane | undefined;
  view: PathView;
  /** Left edge of the tag that the leads hang from, px. */
  tagLeft: number;
  test: Test | null;
  /** Names of nodes that cannot be got at. */
  noReach: readonly string[];
  onRun: (ref: string) => void;
}

/** The path above the work: drawn level where there is room for it, standing up on a phone. */
export function PathBand(props: PathBandProps) {
  const { speaker, lane, view, test, noReach, tagLeft, onRun, ...figure } = props;
  const { model, lanes } = speaker;
  const { compiled } = model;
  const { layout, width, scrolled } = view;
  const long = layout !== null && layout.width > width;
  const narrow = useNarrow();
  const setup = test?.setup ?? {};
  return (
    <>
      <div
        ref={view.frame}
        className="relative z-10 w-full shrink-0 bg-sheet max-tablet:hidden"
        style={{ height: (layout?.height ?? 340) + (long ? OVERVIEW_PX : 0) }}
        data-testid="path"
      >
        <div
          ref={view.scroller}
          onScroll={(event) => view.setScrolled(event.currentTarget.scrollLeft)}
          className={long ? 'overflow-x-auto overflow-y-hidden' : 'h-full'}
          style={long ? { height: layout.height } : undefined}
        >
          {layout ? (
            <PathFigure
              {...figure}
              layout={layout}
              parts={compiled.parts}
              alternating={compiled.alternating}
              gaugeUnit={speaker.gaugeUnit}
              tag={{
                left: (width < 1024 ? EDGE : tagLeft) + scrolled,
                right: width - EDGE + scrolled,
                drop: TAG_DROP,
                scrolled,
              }}
              noReach={new Set(noReach.map((name) => compiled.nodeIndex.get(name) ?? -1))}
              apart={apartParts(model, setup)}
              closed={closedParts(model, test?.setup ?? lane?.setup ?? {})}
              dead={test !== null && isDeadKind(test.kind)}
              nameOf={(node) => (node === compiled.frame ? 'bare frame' : (compiled.nodeNames[node] ?? ''))}
              onRun={(part) => onRun(compiled.parts[part]!.part.ref)}
            />
          ) : (
            <p className="p-8">This circuit has no load that a path can be drawn to.</p>
          )}
        </div>
        {long ? (
          <PathOverview
            layout={layout}
            standings={props.standings}
            frame={view.scroller}
            left={scrolled}
            width={width}
            zoom={view.zoom}
            onZoom={view.setZoom}
          />
        ) : null}
        {layout && layout.others.length > 0 ? (
          <label className="absolute top-1.5 right-6 flex items-center gap-2 bg-sheet pl-2 text-[15px]">
            {layout.others.length === 1 ? '1 more lane' : `${layout.others.length} more lanes`}
            <select
              className="min-h-9 max-w-[220px] border-[1.5px] border-edge bg-sheet px-2"
              value=""
              onChange={(event) => props.onLane(event.target.value)}
            >
              <option value="">show</option>
              {layout.others.map(({ id, of }) => (
                <option key={id} value={id}>
                  {id} {compiled.parts[of]!.part.label ?? ''}
                </option>
              ))}
            </select>
          </label>
        ) : null}
      </div>
      <div className="tablet:hidden max-tablet:order-2">
        {lane && narrow ? (
          <PhonePath
            lane={lane}
            lanes={lanes}
            parts={compiled.parts}
            standings={props.standings}
            pins={props.pins}
            leads={props.leads}
            onPoint={props.onPoint}
            onLane={props.onLane}
          />
        ) : null}
      </div>
    </>
  );
}
