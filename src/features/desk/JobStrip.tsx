'use client';

import { useMemo, useRef } from 'react';
import { chooseLane, complaintLane } from '@/core/path/chooseLane';
import { PathStrip } from '@/ui/path/PathStrip';
import { useWidth } from '@/ui/useWidth';
import { useDesk } from './desk';
import { evenStandings } from '@/core/path/evenStandings';

/** The job's path as the 96 px strip, for every step that does not need it in full. */
export function JobStrip({ part, onPart }: { part?: string | null; onPart?: (ref: string) => void }) {
  const { speaker, outlook, readings, working } = useDesk();
  const { compiled } = speaker.model;
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box);
  const standings = outlook?.standings ?? evenStandings(compiled.parts.length);
  const lane = useMemo(() => {
    const { lanes } = speaker;
    return complaintLane(lanes, readings) ?? chooseLane(lanes, { asked: [], standings });
  }, [readings, speaker, standings]);
  return (
    <div
      ref={box}
      data-testid="job-strip"
      data-working={working}
      className="relative h-[98px] shrink-0 border-b-2 border-ink bg-sheet print:hidden"
    >
      {lane ? (
        <PathStrip
          lane={lane}
          width={width}
          names={compiled.parts.map(({ part: one }) => one.ref)}
          points={speaker.lanes.pointOf}
          standings={standings}
          chosen={part ? (compiled.partIndex.get(part) ?? null) : null}
          {...(onPart ? { onPart: (index: number) => onPart(compiled.parts[index]!.part.ref) } : {})}
        />
      ) : (
        <p className="px-6 py-8">This circuit has no load that a path can be drawn to.</p>
      )}
    </div>
  );
}
