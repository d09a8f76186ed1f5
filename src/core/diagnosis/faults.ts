import type { Branch, CompiledPart } from '../circuit/compile';
import { LEAST_OHMS } from '../circuit/compile';
import type { Edit } from '../circuit/edits';
import { InputError } from '../circuit/inputError';
import type { CircuitModel } from '../circuit/model';

export type FaultName =
  | 'noOutput'
  | 'lowVoltage'
  | 'open'
  | 'highResistance'
  | 'shortToFrame'
  | 'weakInsulation'
  | 'shortedTurns'
  | 'stuckOpen'
  | 'stuckClosed'
  | 'welded'
  | 'short'
  | 'reversed'
  | 'stuckOn'
  | 'stuck'
  | 'shortBetween'
  | 'swapped';

/** Severity of a fault: prior density is log-uniform, `mainShare` of it where the fault matters to the function. */
export interface SeverityRange {
  /** `ohms` is reported as the part's severity; `factor` (of a supply's volts) is not. */
  unit: 'ohms' | 'factor';
  least: number;
  most: number;
  mainLeast: number;
  mainMost: number;
}

/** One way a fault may sit in a part: which end leaks, which contact is worn, above which volts it breaks down. */
export interface FaultVariant {
  weight: number;
  edits: (severity: number) => Edit[];
}

export interface CandidateFault {
  index: number;
  part: number;
  ref: string;
  fault: FaultName;
  /** The other part of a fault between two. */
  other?: string;
  /** Share before any reading. All candidates and `noFault` add to one. */
  prior: number;
  severity: SeverityRange | null;
  variants: FaultVariant[];
}

/** Share of "nothing is wrong here" before any reading. */
export const NO_FAULT_PRIOR = 0.12;

/** How often each fault is the cause, relative to an open wire: rules of thumb, adjustable per part by `wear`. */
const FREQUENCY: Readonly<Record<string, number>> = {
  'source.noOutput': 0.4,
  'source.lowVoltage': 0.4,
  'transformer.open': 0.6,
  'transformer.lowVoltage': 0.2,
  'fuse.open': 0.8,
  'breaker.open': 0.6,
  'wire.open': 0.6,
  'wire.highResistance': 0.5,
  'wire.shortToFrame': 0.4,
  'wire.weakInsulation': 0.2,
  'wire.shortBetween': 0.2,
  'pin.open': 0.8,
  'pin.highResistance': 0.8,
  'pin.swapped': 0.03,
  'switch.stuckOpen': 0.8,
  'switch.stuckClosed': 0.4,
  'switch.highResistance': 0.6,
  'relay.open': 0.6,
  'relay.shortedTurns': 0.2,
  'relay.stuckOpen': 0.6,
  'relay.welded': 0.4,
  'relay.highResistance': 0.6,
  'coil.open': 1,
  'coil.shortedTurns': 0.6,
  'coil.shortToFrame': 0.3,
  'coil.weakInsulation': 0.1,
  'diode.open': 0.2,
  'diode.short': 0.5,
  'diode.reversed': 0.1,
  'load.open': 0.8,
  'load.short': 0.3,
  'load.shortToFrame': 0.3,
  'sensor3.open': 0.6,
  'sensor3.short': 0.2,
  'sensor3.stuck': 0.3,
  'driver.noOutput': 0.5,
  'driver.stuckOn': 0.2,
  'timer.stuckOpen': 0.6,
  'timer.stuckClosed': 0.4,
};

/** Below this resistance to the frame a leak to the frame is harmless, and this much less likely to be the cause. */
const BONDED_OHMS = 0.3;
const HARMLESS = 0.02;
/** Ohms of a dead short inside a part. */
const SHORT_OHMS = 0.02;
/** Path resistances beyond the range that changes the function, still found by an insulation tester. */
const FAINTEST_LEAK_OHMS = 5e8;
const WORST_JOINT_OHMS = 2e6;
/** Volts at which weak insulation may begin to conduct, over the highest it sees at work; each is a variant, none is reported. */
const BREAKDOWN_SHARES = [0.1, 0.35, 0.7, 2, 6, 18];

/** Every fault the circuit can have, with shares that add, together with `NO_FAULT_PRIOR`, to one. */
export function listFaults(model: CircuitModel): CandidateFault[] {
  const { compiled } = model;
  const loops = model.loopOhms();
  const environment = compiled.circuit.environment ?? {};
  const faults: CandidateFault[] = [];
  const add = (
    part: CompiledPart,
    fault: FaultName,
    group: string,
    severity: SeverityRange | null,
    variants: FaultVariant[],
    other?: string,
    factor = 1,
  ) => {
    if (variants.length === 0) return;
    const total = variants.reduce((sum, { weight }) => sum + weight, 0);
    const wiring = group === 'wire' || group === 'pin';
    let prior = (FREQUENCY[`${group}.${fault}`] ?? 0.3) * (part.part.wear ?? 1) * factor;
    if (
      environment.wet &&
      (fault === 'weakInsulation' || fault === 'highResistance' || fault === 'shortToFrame')
    ) {
      prior *= 2;
    }
    if (environment.vibration && wiring && fault === 'open') prior *= 1.6;
    if (environment.hot && group === 'coil') prior *= 1.6;
    if (environment.worked && wiring) prior *= 2;
    faults.push({
      index: faults.length,
      part: part.index,
      ref: part.part.ref,
      fault,
      ...(other === undefined ? {} : { other }),
      prior,
      severity,
      variants: variants.map((variant) => ({ ...variant, weight: variant.weight / total })),
    });
  };
  /** Loop a leak at this branch competes with: the load's, or the whole supply's when it never carries current. */
  const loopOf = (branch: Branch) => {
    const own = loops[branch.index]!;
    const finite = [...loops].filter(Number.isFinite);
    return Number.isFinite(own) ? own : finite.length > 0 ? Math.min(...finite) : 10;
  };
  const series = (branch: Branch): SeverityRange => {
    const matters = 0.05 * loopOf(branch) + branch.ohms;
    const least = Math.min(branch.ohms * 1.5 + 0.01 * loopOf(branch), matters);
    return {
      unit: 'ohms',
      least,
      most: Math.max(WORST_JOINT_OHMS, 1e3 * matters),
      mainLeast: matters,
      mainMost: 100 * loopOf(branch) + branch.ohms,
    };
  };
  const leakRange = (branch: Branch): SeverityRange => ({
    unit: 'ohms',
    least: LEAST_OHMS * 100,
    most: FAINTEST_LEAK_OHMS,
    mainLeast: LEAST_OHMS * 100,
    mainMost: Math.max(10 * loopOf(branch), 1),
  });
  const rest = model.situation({}).solve({ mode: 'ohms' });
  /** Bonded to the frame on the sound circuit: a leak to the frame here changes nothing. */
  const bonded = (node: number) => rest.changed.pairOhms(node, compiled.frame) < BONDED_OHMS;
  const atFrame = (branch: Branch) => leakEnds(branch).every((end) => bonded(branch[end]));
  const joint = (branch: Branch): FaultVariant => ({
    weight: 1,
    edits: (ohms) => [{ type: 'ohms', branch: branch.index, ohms }],
  });
  const broken = (branch: Branch): FaultVariant => ({
    weight: 1,
    edits: () => [{ type: 'ohms', branch: branch.index, ohms: Infinity }],
  });
  const forced = (branch: Branch, on: boolean): FaultVariant => ({
    weight: 1,
    edits: () => [{ type: 'force', branch: branch.index, on }],
  });
  /** Ends of a branch that a leak to the frame would show at. */
  const leakEnds = (branch: Branch) => {
    const ends = (['a', 'b'] as const).filter((end) => branch[end] !== compiled.frame);
    return ends.length > 0 ? ends : (['a'] as const);
  };
  const leaks = (branch: Branch): FaultVariant[] =>
    leakEnds(branch).map((end, at) => ({
      weight: (at === 0 ? 2 : 1) * (bonded(branch[end]) ? HARMLESS : 1),
      edits: (ohms) => [{ type: 'leak', at: { branch: branch.index, end }, ohms }],
    }));
  const weakSpots = (branch: Branch): FaultVariant[] =>
    BREAKDOWN_SHARES.map((share) => {
      const at = { branch: branch.index, end: leakEnds(branch)[0]! };
      const breakdownVolts = share * model.peakVolts(branch[at.end]);
      return { weight: share < 1 ? 2 : 1, edits: (ohms) => [{ type: 'leak', at, ohms, breakdownVolts }] };
    });
  const weakRange = (branch: Branch): SeverityRange => ({
    ...leakRange(branch),
    least: 0.05,
    mainLeast: 0.05,
    mainMost: 300 * loopOf(branch),
  });
  const turns = (branch: Branch): SeverityRange => ({
    unit: 'ohms',
    least: branch.ohms * 0.004,
    most: branch.ohms * 0.95,
    mainLeast: branch.ohms * 0.02,
    mainMost: branch.ohms * 0.88,
  });

  for (const part of compiled.parts) {
    const { kind } = part.part;
    const body = part.branches[0]!;
    switch (kind) {
      case 'source':
        add(part, 'noOutput', kind, null, [broken(body)]);
        add(
          part,
          'lowVoltage',
          kind,
          { unit: 'factor', least: 0.2, most: 0.92, mainLeast: 0.4, mainMost: 0.9 },
          [{ weight: 1, edits: (factor) => [{ type: 'emf', branch: body.index, factor }] }],
        );
        break;
      case 'transformer':
        add(part, 'open', kind, null, [
          { weight: 1, edits: () => [{ type: 'transformer', part: part.index, ohms: Infinity }] },
        ]);
        add(
          part,
          'lowVoltage',
          kind,
          { unit: 'factor', least: 0.2, most: 0.92, mainLeast: 0.4, mainMost: 0.9 },
          [{ weight: 1, edits: (factor) => [{ type: 'transformer', part: part.index, factor }] }],
        );
        break;
      case 'fuse':
      case 'breaker':
        add(part, 'open', kind, null, [broken(body)]);
        break;
      case 'wire':
        add(part, 'open', kind, null, [broken(body)]);
        add(part, 'highResistance', kind, series(body), [joint(body)]);
        // A wire that is the frame bond itself cannot leak to the frame.
        if (body.a !== compiled.frame || body.b !== compiled.frame) {
          add(
            part,
            'shortToFrame',
            kind,
            leakRange(body),
            leaks(body),
            undefined,
            atFrame(body) ? HARMLESS : 1,
          );
          add(
            part,
            'weakInsulation',
            kind,
            weakRange(body),
            weakSpots(body),
            undefined,
            atFrame(body) ? HARMLESS : 1,
          );
        }
        break;
      case 'pin':
        add(part, 'open', kind, null, [broken(body)]);
        add(part, 'highResistance', kind, series(body), [joint(body)]);
        break;
      case 'switch':
        add(part, 'stuckOpen', kind, null, [forced(body, false)]);
        add(part, 'stuckClosed', kind, null, [forced(body, true)]);
        add(part, 'highResistance', kind, series(body), [joint(body)]);
        break;
      case 'timer':
        add(part, 'stuckOpen', kind, null, [forced(body, false)]);
        add(part, 'stuckClosed', kind, null, [forced(body, true)]);
        break;
      case 'relay': {
        add(part, 'open', kind, null, [broken(body)]);
        add(part, 'shortedTurns', kind, turns(body), [joint(body)]);
        const made = part.branches.filter(({ role }) => role === 'made');
        const resting = part.branches.filter(({ role }) => role === 'resting');
        const contacts = [...made, ...resting];
        add(part, 'stuckOpen', kind, null, [
          ...made.map((branch) => ({ ...forced(branch, false), weight: 2 })),
          ...resting.map((branch) => forced(branch, false)),
        ]);
        add(
          part,
          'welded',
          kind,
          null,
          made.map((branch) => {
            const twin = resting.find(({ set }) => set === branch.set);
            return {
              weight: 1,
              edits: () => [
                ...(twin ? [{ type: 'force' as const, branch: twin.index, on: false }] : []),
                { type: 'force', branch: branch.index, on: true },
              ],
            };
          }),
        );
        for (const contact of contacts) {
          if (contact !== contacts[0]) continue;
          add(part, 'highResistance', kind, series(contact), contacts.map(joint));
        }
        break;
      }
      case 'coil':
        add(part, 'open', kind, null, [broken(body)]);
        add(part, 'shortedTurns', kind, turns(body), [joint(body)]);
        add(part, 'shortToFrame', kind, leakRange(body), leaks(body));
        add(part, 'weakInsulation', kind, weakRange(body), weakSpots(body));
        break;
      case 'diode':
        add(part, 'open', kind, null, [forced(body, false)]);
        add(part, 'short', kind, null, [{ weight: 1, edits: () => bridgeAcross(body, SHORT_OHMS) }]);
        add(part, 'reversed', kind, null, [
          { weight: 1, edits: () => [{ type: 'reverse', branch: body.index }] },
        ]);
        break;
      case 'resistor':
      case 'lamp':
      case 'heater':
      case 'motor':
        add(part, 'open', 'load', null, [broken(body)]);
        add(part, 'short', 'load', null, [
          { weight: 1, edits: () => [{ type: 'ohms', branch: body.index, ohms: SHORT_OHMS }] },
        ]);
        if (kind === 'heater' || kind === 'motor') {
          add(part, 'shortToFrame', 'load', leakRange(body), leaks(body));
        }
        break;
      case 'sensor3': {
        const [upper, lower, wiper] = part.branches as [Branch, Branch, Branch];
        add(part, 'open', kind, null, [broken(upper), broken(lower), broken(wiper)]);
        add(part, 'short', kind, null, [
          { weight: 1, edits: () => [{ type: 'ohms', branch: upper.index, ohms: 1 }] },
          { weight: 1, edits: () => [{ type: 'ohms', branch: lower.index, ohms: 1 }] },
        ]);
        add(
          part,
          'stuck',
          kind,
          null,
          [0.15, 0.5, 0.85].map((at) => ({
            weight: 1,
            edits: () => [
              { type: 'ohms' as const, branch: upper.index, ohms: (upper.ohms + lower.ohms) * (1 - at) },
              { type: 'ohms' as const, branch: lower.index, ohms: (upper.ohms + lower.ohms) * at },
            ],
          })),
        );
        break;
      }
      case 'driver':
        add(part, 'noOutput', kind, null, [forced(body, false)]);
        add(part, 'stuckOn', kind, null, [forced(body, true)]);
    }
  }
  addBundleShorts(model, add);
  addSwappedConnectors(model, add);
  const sum = faults.reduce((total, { prior }) => total + prior, 0);
  for (const fault of faults) fault.prior *= (1 - NO_FAULT_PRIOR) / sum;
  return faults;
}

type AddFault = (
  part: CompiledPart,
  fault: FaultName,
  group: string,
  severity: SeverityRange | null,
  variants: FaultVariant[],
  other?: string,
) => void;

function bridgeAcross(branch: Branch, ohms: number): Edit[] {
  const at = (end: 'a' | 'b') => ({ branch: branch.index, end });
  return [{ type: 'bridge', from: at('a'), to: at('b'), ohms }];
}

function addBundleShorts(model: CircuitModel, add: AddFault): void {
  const { compiled } = model;
  const wires = compiled.parts.filter(({ part }) => part.kind === 'wire' && part.bundle !== undefined);
  wires.forEach((one, at) => {
    for (const two of wires.slice(at + 1)) {
      if (one.part.kind !== 'wire' || two.part.kind !== 'wire' || one.part.bundle !== two.part.bundle)
        continue;
      const [from, to] = [one.branches[0]!, two.branches[0]!];
      const together = [from.a, from.b].some((node) => node === to.a || node === to.b);
      if (together) continue;
      add(
        one,
        'shortBetween',
        'wire',
        { unit: 'ohms', least: 0.01, most: 1e6, mainLeast: 0.01, mainMost: 100 },
        [
          {
            weight: 1,
            edits: (ohms) => [
              {
                type: 'bridge',
                from: { branch: from.index, end: 'b' },
                to: { branch: to.index, end: 'b' },
                ohms,
              },
            ],
          },
        ],
        two.part.ref,
      );
    }
  });
}

/** Connectors with the same number of pins can be plugged into each other's place. */
function addSwappedConnectors(model: CircuitModel, add: AddFault): void {
  const { compiled } = model;
  const pins = compiled.connectors.map((connector) =>
    compiled.parts.filter(({ part }) => part.kind === 'pin' && part.connector === connector),
  );
  pins.forEach((ours, at) => {
    pins.slice(at + 1).forEach((theirs, offset) => {
      if (ours.length !== theirs.length) return;
      add(
        ours[0]!,
        'swapped',
        'pin',
        null,
        [
          {
            weight: 1,
            edits: () => [
              {
                type: 'cross',
                pairs: ours.map((pin, k) => [pin.branches[0]!.index, theirs[k]!.branches[0]!.index] as const),
              },
            ],
          },
        ],
        compiled.connectors[at + 1 + offset]!,
      );
    });
  });
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
    throw new InputError('--fault', `severity must be a number of ohms above 0 (given ${ohms})`);
  }
  return { fault: found, severity: ohms ?? typicalSeverity(found) };
}

/** A middling severity, for showing a fault when none is given. */
export function typicalSeverity({ severity }: CandidateFault): number {
  return severity ? Math.sqrt(severity.mainLeast * severity.mainMost) : 1;
}
