import { InputError } from '../circuit/inputError';
import type { CircuitModel } from '../circuit/model';
import { kindOf } from '../kinds/part/index';
import { NO_FAULT_PRIOR, ODDS_TRUST } from './faultFrequency';
import { faultRanges } from './faultRanges';
import type { AddFault, CandidateFault, FaultName } from './faultTypes';
import { addPairFaults } from './pairFaults';

const WET: readonly FaultName[] = ['weakInsulation', 'highResistance', 'shortToFrame'];

/**
 * Every fault the circuit can have, with shares that add, together with `NO_FAULT_PRIOR`, to one. Of thick looms and
 * many plugs only near pairs are looked at; `leaveOut` is told how many others there are.
 */
export function listFaults(
  model: CircuitModel,
  leaveOut: (count: number) => void = () => undefined,
): CandidateFault[] {
  const environment = model.compiled.circuit.environment ?? {};
  const faults: CandidateFault[] = [];
  /** Odds by rule of thumb, before what is known of this part and its surroundings. */
  const thumbs: number[] = [];
  const add: AddFault = (part, fault, odds, severity, variants, { other, factor = 1 } = {}) => {
    if (variants.length === 0) return;
    const total = variants.reduce((sum, { weight }) => sum + weight, 0);
    const wiring = part.part.kind === 'wire' || part.part.kind === 'pin';
    const thumb = odds * factor;
    let prior = thumb * (part.part.wear ?? 1);
    if (environment.wet && WET.includes(fault)) prior *= 2;
    if (environment.vibration && wiring && fault === 'open') prior *= 1.6;
    if (environment.hot && part.part.kind === 'coil') prior *= 1.6;
    if (environment.worked && wiring) prior *= 2;
    thumbs.push(thumb);
    faults.push({
      index: faults.length,
      part: part.index,
      ref: part.part.ref,
      fault,
      ...(other === undefined ? {} : { other }),
      prior,
      frequency: prior,
      severity,
      variants: variants.map((variant) => ({ ...variant, weight: variant.weight / total })),
    });
  };
  const ranges = faultRanges(model);
  const spools = new Set(
    model.compiled.circuit.parts.flatMap((part) => (part.kind === 'valve' ? [part.coil, part.coil2] : [])),
  );
  const ofSide = (fluid: boolean) => {
    for (const part of model.compiled.parts) {
      const kind = kindOf(part.part);
      if (kind.traits.fluid !== fluid) continue;
      const side = fluid ? 'fluid' : 'electrical';
      kind.faults(
        {
          ...ranges,
          part,
          // A transformer has none: its windings are a unit of their own, and its faults do not ask.
          body: part.branches.find(({ domain }) => domain === side)!,
          movesSpool: spools.has(part.part.ref),
          add: (fault, severity, variants, more) =>
            add(part, fault, kind.odds[fault]!, severity, variants, more),
        },
        part.part,
      );
    }
  };
  ofSide(false);
  addPairFaults(model, add, leaveOut);
  ofSide(true);
  level(faults, thumbs);
  const sum = faults.reduce((total, { prior }) => total + prior, 0);
  for (const fault of faults) fault.prior *= (1 - NO_FAULT_PRIOR) / sum;
  return faults;
}

/**
 * Brings the odds of single parts nearer to each other, as far as rules of thumb are trusted, their total and what the surroundings add
 * kept. Faults between two parts are left: there are hundreds, each as rare as it is.
 */
function level(faults: readonly CandidateFault[], thumbs: readonly number[]): void {
  const single = faults.filter(({ other }) => other === undefined);
  const total = (of: (thumb: number) => number) =>
    single.reduce((sum, { index }) => sum + of(thumbs[index]!), 0);
  const mean = total((thumb) => thumb) / single.length;
  const trusted = (thumb: number) => mean * (thumb / mean) ** ODDS_TRUST;
  const scale = total((thumb) => thumb) / total(trusted);
  for (const fault of single) {
    const thumb = thumbs[fault.index]!;
    fault.prior *= (scale * trusted(thumb)) / thumb;
  }
}

/** Edits for `PART:FAULT[=OHMS]`, as the command line takes it. Throws `InputError`. */
export function faultByName(
  faults: readonly CandidateFault[],
  ref: string,
  fault: string,
  ohms?: number,
): { fault: CandidateFault; severity: number } {
  const [part, other] = ref.split('+');
  const ofPart = faults.filter((one) => one.ref === part && (other === undefined || one.other === other));
  if (ofPart.length === 0) throw new InputError('--fault', `no part "${ref}" in this circuit`);
  const found = ofPart.find((one) => one.fault === fault);
  if (!found) {
    const known = [...new Set(ofPart.map((one) => one.fault))].join(', ');
    throw new InputError('--fault', `"${ref}" has no fault "${fault}"; it can have ${known}`);
  }
  if (ohms !== undefined && !(ohms > 0)) {
    throw new InputError('--fault', `severity must be a number above 0 (given ${ohms})`);
  }
  return { fault: found, severity: ohms ?? typicalSeverity(found) };
}

/** A middling severity, for showing a fault when none is given. */
export function typicalSeverity({ severity }: CandidateFault): number {
  return severity ? Math.sqrt(severity.mainLeast * severity.mainMost) : 1;
}
