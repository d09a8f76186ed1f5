import type { Branch, CompiledPart } from '../../circuit/compile';
import type { CircuitModel } from '../../circuit/model';
import type { Reading, Setup, Test } from '../../circuit/schema';
import { mayTake } from '../../diagnosis/candidateTests';
import { bothApart, oneEndAlone } from '../../diagnosis/setApart';
import { cellOf, figure, type SheetCell } from './jobSheet';

/** A part that was read as it stands, and the same reading with one end of it bare: what lies across it shows in the first alone. */
export interface BareEnd {
  /** Null where no end of it can be bared. */
  cell: SheetCell | null;
  /** What was read is its own: an end of it was bare. */
  isOwn: boolean;
}

/** What is known of a part by itself, beside a look at it as it stands (`quick`). */
export function bareEndOf(
  model: CircuitModel,
  part: CompiledPart,
  body: Branch,
  quick: SheetCell | null,
  readings: readonly Reading[],
): BareEnd {
  const apart = oneEndAlone(model, { ...part, nodes: [body.a, body.b] }, {});
  if (quick === null || apart === null) return { cell: null, isOwn: false };
  // What was read as it stands counts for nothing here, though the sound machine would show the same.
  const bare = readings.flatMap((one, at) => (hasOff(one.setup, apart) ? [at] : []));
  const read = quick.reading !== null && bare.includes(quick.reading);
  const cell = hasOff(quick.test.setup, apart)
    ? null
    : cellOf(
        model,
        bareTest(model, quick.test, apart),
        bare.map((at) => readings[at]!),
      );
  const own = cell && { ...cell, reading: cell.reading === null ? null : bare[cell.reading]! };
  return { cell: own, isOwn: read || figure(own) !== undefined };
}

/** The same test with one end of a part bare; null where that may not be read. */
export function bareTest(model: CircuitModel, test: Test, apart: Setup): Test | null {
  return mayTake(model, { ...test, setup: { ...test.setup, ...bothApart(test.setup, apart) } } as Test);
}

/** Whether all is off that has to be. */
function hasOff({ unplugged = [], lifted = [] }: Setup, apart: Setup): boolean {
  return (
    (apart.unplugged ?? []).every((plug) => unplugged.includes(plug)) &&
    (apart.lifted ?? []).every((end) =>
      lifted.some(({ part, node }) => part === end.part && node === end.node),
    )
  );
}
