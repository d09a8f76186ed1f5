import { LABEL_FIGURES } from '../circuit/partSchema';
import type { Circuit, Part } from '../circuit/schema';
import { kindOf } from '../kinds/part';
import type { Template } from './templates';

/** A value is moved by this share to see which figures follow from it. */
const MOVED = 0.1;

/**
 * A template as a drawing to begin with. What follows from what somebody gave was said; every other figure that a label tells was
 * said by nobody.
 *
 * @param given by field, within its bounds
 */
export function drawingFrom({ fields, build }: Template, given: Readonly<Record<string, number>>): Circuit {
  const circuit = build(given);
  const moved = fields.flatMap(({ key, unit, most }) => {
    const value = given[key];
    // How many there are of something is no figure of a label.
    if (value === undefined || unit === '') return [];
    return [[key, value * (1 + MOVED) <= most ? value * (1 + MOVED) : value * (1 - MOVED)] as const];
  });
  const other = build({ ...given, ...Object.fromEntries(moved) });
  const others = new Map(other.parts.map((part) => [part.ref, part]));
  return { ...circuit, parts: circuit.parts.map((part) => unsaid(part, others.get(part.ref))) };
}

function unsaid(drawn: Part, moved: Part | undefined): Part {
  const part = withoutHow(withoutInductance(drawn));
  const [own, other] = [part, moved ?? part] as unknown as [Figures, Figures];
  // A coil of which nobody said the ohms is drawn without them.
  if (part.kind === 'coil' && part.ohms !== undefined && own.ohms === other.ohms) {
    const { ohms: _ohms, pullInAmps: _pull, holdAmps: _hold, ...rest } = part;
    return rest;
  }
  const { labelled } = kindOf(part);
  const assumed = LABEL_FIGURES.filter(
    (figure) => labelled[figure] && own[figure] !== undefined && own[figure] === other[figure],
  );
  return assumed.length > 0 ? { ...part, assumed } : part;
}

/** No label tells an inductance and no value of a template gives it: amperes of alternating current would be held against it. */
function withoutInductance(part: Part): Part {
  if ((part.kind !== 'coil' && part.kind !== 'relay') || part.henries === undefined) return part;
  const { henries: _henries, ...rest } = part;
  return rest;
}

/** Nobody has said yet how this machine's supplies are cut off: the checks propose the usual words, a person agrees. */
function withoutHow(part: Part): Part {
  if (!('how' in part) || part.how === undefined) return part;
  const { how: _how, ...rest } = part;
  return rest;
}

type Figures = Readonly<Record<string, unknown>>;
