import { InputError } from '../../circuit/inputError';
import type { CircuitModel } from '../../circuit/model';
import type { Part, Test } from '../../circuit/schema';
import { findNode, findPart } from '../../circuit/situation';
import type { SituationSolver } from '../../circuit/solveSituation';
import type { NumberDue } from '../../diagnosis/prediction';
import type { Spread } from '../../circuit/spread';

/** Volts above which a pair counts as powered: an ohmmeter there would read nonsense and may be damaged. */
const POWERED_VOLTS = 0.02;

/** Nodes of a pair of leads. Throws `InputError` for an unknown one, or one that carries fluid. */
export function electricalPair(
  { compiled }: CircuitModel,
  { from, to }: { from: string; to: string },
  field: string,
): [number, number] {
  const pair: [number, number] = [
    findNode(compiled, from, `${field}.from`),
    findNode(compiled, to, `${field}.to`),
  ];
  pair.forEach((node, at) => {
    if (compiled.domains[node] !== 'fluid') return;
    const key = at === 0 ? 'from' : 'to';
    throw new InputError(
      `${field}.${key}`,
      `node "${at === 0 ? from : to}" carries fluid; a meter reads electrical nodes`,
    );
  });
  return pair;
}

/** The part standing in a named place: itself, or its twin where the two are swapped. */
export function partOf<K extends Part['kind']>(
  { compiled }: CircuitModel,
  solver: SituationSolver,
  ref: string,
  field: string,
  kinds: readonly K[],
  mend: string,
) {
  const place = findPart(compiled, ref, `${field}.part`);
  const found = compiled.parts[solver.situation.inPlace[place]!]!;
  if (!kinds.includes(found.part.kind as K)) {
    throw new InputError(`${field}.part`, `"${ref}" is a ${found.part.kind}; ${mend}`);
  }
  return { ...found, part: found.part as Extract<Part, { kind: K }> };
}

/** Throws `InputError` where a pair is powered in a set-up that a dead reading was meant for. */
export function refusePowered(
  model: CircuitModel,
  solver: SituationSolver,
  [i, j]: readonly [number, number],
  kind: Test['kind'],
  field: string,
): void {
  const volts = solver.solve({ mode: 'live' }).changed.pairVolts(i, j);
  if (Number.isNaN(volts) || Math.abs(volts) <= POWERED_VOLTS) return;
  const name = (node: number) => model.compiled.nodeNames[node];
  throw new InputError(
    field,
    `${kind} from "${name(i)}" to "${name(j)}" is impossible in this set-up: the pair is powered ` +
      `(${Math.abs(volts).toFixed(2)} V); pull the fuse, unplug or isolate the source first`,
  );
}

/** Ohms as a meter shows them, with over-range above a limit. */
export function measuredOhms(ohms: number, spread: Spread, over: number): NumberDue {
  return ohms > over
    ? { type: 'number', mean: Infinity, sigma: 0, loose: false }
    : { type: 'number', mean: Math.max(ohms, 0), loose: false, ...spread };
}
