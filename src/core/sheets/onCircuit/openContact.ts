import type { Branch, CompiledPart } from '../../circuit/compile';
import type { CircuitModel } from '../../circuit/model';
import type { Edit } from '../../circuit/edits';
import type { Reading, Test } from '../../circuit/schema';
import { bindTest, predict } from '../../diagnosis/predict';
import { oneEndAlone } from '../../diagnosis/setApart';
import { kindOf } from '../../kinds/part';
import { bareTest } from './bareEnd';
import { cellOf, figure, ohmsSize, type SheetCell } from './jobSheet';

/** A contact that should be open: as the machine stands, and with one end of it bare. */
export interface OpenContact {
  quick: SheetCell | null;
  alone: SheetCell | null;
  /** What was read of the contact itself; undefined while it may have come round about. */
  own: number | 'OL' | undefined;
  /** It was read as it stands, and only bare can say. */
  wantsAlone: boolean;
}

/** From this share of what the sound machine shows there a contact is open. */
const OPEN_SHARE = 0.7;
/** A way round about explains ohms that are not less than this share of it, less this many for the leads. */
const ROUND_SHARE = 0.7;
const ROUND_OHMS = 0.5;

/** What is known of a contact that should be open, from a look as it stands (`quick`) and, where that says too little, from one with an end of it bare. */
export function openContactOf(
  model: CircuitModel,
  part: CompiledPart,
  contact: Branch,
  quick: SheetCell | null,
  readings: readonly Reading[],
): OpenContact {
  const test = quick && aloneTest(model, part, contact, quick.test);
  const alone = cellOf(model, test, readings);
  const bare = figure(alone);
  if (bare !== undefined) return { quick, alone, own: bare, wantsAlone: false };
  const shown = figure(quick);
  if (quick === null || shown === undefined) return { quick, alone, own: undefined, wantsAlone: false };
  const [open, ohms] = [ohmsSize(quick.expected), ohmsSize(shown)];
  // Nothing is called closed while an end of it can be bared: what is shorted beside it shows the same.
  const sure =
    ohms >= OPEN_SHARE * open ||
    (alone === null && ohms < ROUND_SHARE * roundAbout(model, quick.test, contact) - ROUND_OHMS);
  return { quick, alone, own: sure ? shown : undefined, wantsAlone: !sure && alone !== null };
}

/** The same test with one end of the contact bare, and no other contact of its part on that end; null where that may not be read. */
function aloneTest(model: CircuitModel, part: CompiledPart, contact: Branch, test: Test): Test | null {
  const others = part.branches.filter(({ index }) => index !== contact.index);
  const nodes = [contact.a, contact.b].filter((node) => others.every(({ a, b }) => a !== node && b !== node));
  const apart = oneEndAlone(model, { ...part, nodes }, {});
  return apart && bareTest(model, test, apart);
}

/** Ohms that would show over an open contact if every other contact of the machine were closed. */
function roundAbout(model: CircuitModel, test: Test, contact: Branch): number {
  const edits = model.compiled.parts.flatMap(({ part, branches }): Edit[] =>
    kindOf(part).traits.contact
      ? branches
          .filter(({ index, role }) => index !== contact.index && (part.kind !== 'relay' || role !== 'body'))
          .map(({ index }) => ({ type: 'force', branch: index, on: true }))
      : [],
  );
  const shown = predict(bindTest(model, test), edits);
  return shown.type === 'number' ? shown.mean : Infinity;
}
