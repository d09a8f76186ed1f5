import { significant } from '../units/significant';
import { LABEL_FIGURES, type LabelFigure } from '../circuit/partSchema';
import type { Circuit, Part } from '../circuit/schema';
import { kindOf } from '../kinds/part/index';
import { controlOf } from './controlOf';
import type { Given } from './chainItem';

/** What stands around a part that is being made. */
export interface Surroundings {
  controls: Circuit['controls'];
  frame: string;
  /** Supply of the run: nominal volts of its source, its hot node, and where it goes home. */
  volts: number;
  plus: string;
}

/** Node behind a part of a run, which is named after it. */
export function nodeBehind(ref: string): string {
  return `${ref}:2`;
}

/** What a part that is made now stands among: the last supply drawn, or the transformer behind it. */
export function surroundings(
  parts: readonly Part[],
  controls: Circuit['controls'],
  frame: string,
): Surroundings {
  let [volts, plus] = [12.6, 'B+'];
  for (const part of parts) {
    if (part.kind === 'source') [volts, plus] = [part.volts, part.nodes['+']];
    if (part.kind === 'transformer') [volts, plus] = [volts / part.ratio, part.nodes.s1];
  }
  return { controls, frame, volts, plus };
}

/** A controller's own sight of its load: below and above these shares of the healthy current it sets a code. */
const OPEN_LOAD = 0.15;
const OVERLOAD = 1.6;
const round = (value: number) => significant(value, 3);

/**
 * A part between two nodes with what was said and its kind's usual figures for the rest, and the controls it needs. The
 * nodes of parts with more than two ends are named after the part: "A1:O", "B1:S".
 */
export function newPart(
  kind: Part['kind'],
  ref: string,
  near: string,
  far: string,
  given: Given,
  around: Surroundings,
): { part: Part; controls: Circuit['controls'] } {
  const { figures, label } = given;
  const { controls, volts } = around;
  const saidOhms = figures.ohms ?? (figures.watts ? round(volts ** 2 / figures.watts) : undefined);
  const { part, controls: worked = controls } = kindOf({ kind }).make({
    ...around,
    ref,
    near,
    far,
    given,
    common: {
      ref,
      ...(label ? { label } : {}),
      // What nobody has said stays with the kind.
      ...(figures.accessMinutes === undefined ? {} : { accessMinutes: figures.accessMinutes }),
    },
    two: { '1': near, '2': far },
    saidOhms,
    ohms: (usual) => saidOhms ?? usual,
    worked: (fallback) => controlOf(controls, given, fallback),
  });
  const assumed = assumedFigures(kind, figures, part);
  return { part: assumed.length > 0 ? { ...part, assumed } : part, controls: worked };
}

/** Figures of a part's label that nothing in a run has said. */
function assumedFigures(kind: Part['kind'], said: Given['figures'], part: Part): LabelFigure[] {
  const { labelled } = kindOf({ kind });
  return LABEL_FIGURES.filter((figure) => {
    const how = labelled[figure];
    if (!how || !(figure in part)) return false;
    return !('saidBy' in how) || how.saidBy.every((one) => said[one] === undefined);
  });
}

/** When a controller that sees this load would set a code for too little and too much current. */
export function codesFor(amps: number): Record<string, { belowAmps?: number; aboveAmps?: number }> {
  return { '5': { belowAmps: round(OPEN_LOAD * amps) }, '6': { aboveAmps: round(OVERLOAD * amps) } };
}
