'use client';

import { coilFeatures } from '@/core/trace/coilFeatures';
import { traceOfKept } from '@/core/trace/keptTrace';
import { CONDITION_WORDS } from '@/words/en/conditions';
import { markWords } from '@/words/en/traces';
import { aligned, shifted } from './shifted';
import { ShownTrace, TraceChart } from './ShownTrace';
import type { TraceLine } from './TraceChart';
import type { PartTrace } from './usePartTrace';

/** The chart of a part's trace with what lies behind it; before there is one, what a sound part draws. */
export function DrawnTrace({ trace }: { trace: PartTrace }) {
  const { part, shown, features, sketch, dip, brought, kept, start } = trace;
  if (shown && features)
    return (
      <ShownTrace
        key={brought?.source ?? kept?.id}
        part={part}
        shown={shown}
        lines={linesOf(trace)}
        marks={[
          ...(dip ? markWords(features) : (start?.marks ?? [])),
          ...(brought?.heard ?? []).map((at) => ({ at, words: 'heard' })),
        ]}
      />
    );
  if (!sketch) return null;
  return (
    <>
      <TraceChart
        label={`What a sound ${part} draws`}
        lines={[{ name: 'sound', trace: sketch, as: 'expected' }]}
        marks={dip ? markWords(coilFeatures(sketch)) : []}
        cursors={[]}
      />
      <p className="text-[15.5px] text-copper-ink">
        Dots: what a sound one draws. Amps and shape are this circuit’s; its milliseconds are those of the
        usual kind.
      </p>
    </>
  );
}

/** The trace itself, what it is held against, and what it should be. */
function linesOf({ part, shown, held, before, features, sketch, start, expected }: PartTrace): TraceLine[] {
  if (!shown || !features) return [];
  const lines: TraceLine[] = [{ name: 'this one', trace: shown, as: 'own' }];
  if (held.sound)
    lines.push({
      name: held.sound.name,
      trace: aligned(traceOfKept(held.sound.amps), before?.onset, features.onset),
      as: 'before',
    });
  if (sketch && start)
    lines.push({
      name: `expected: ${part} sound`,
      trace: shifted(sketch, (start.marks[0]?.at ?? 0) - sketch.seconds[0]!),
      as: 'expected',
    });
  if (expected)
    lines.push({
      name: `expected: ${CONDITION_WORDS[expected.condition]}`,
      trace: expected.trace,
      as: 'expected',
    });
  return lines;
}
