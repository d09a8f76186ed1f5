import { LEAST_OHMS, type Branch, type CompiledPart } from '../circuit/compile';
import type { Edit } from '../circuit/edits';
import type { CircuitModel } from '../circuit/model';
import {
  bridged,
  broken,
  forced,
  leak,
  worsened,
  type AddFault,
  type FaultVariant,
  type SeverityRange,
} from './faultTypes';

/** Below this resistance to the frame a leak to the frame is harmless, and this much less likely to be the cause. */
const BONDED_OHMS = 0.3;
const HARMLESS = 0.02;
const LOW_SUPPLY: SeverityRange = { unit: 'factor', least: 0.2, most: 0.92, mainLeast: 0.4, mainMost: 0.9 };
/** Ohms of a dead short inside a part. */
const SHORT_OHMS = 0.02;
/** Path resistances beyond the range that changes the function, still found by an insulation tester. */
const FAINTEST_LEAK_OHMS = 5e8;
const WORST_JOINT_OHMS = 2e6;
/** Volts at which weak insulation may begin to conduct, over the highest it sees at work; each is a variant, none is reported. */
const BREAKDOWN_SHARES = [0.1, 0.35, 0.7, 2, 6, 18];

/** Faults of everything that carries current, between wires of a bundle, and of plugs in each other's place. */
export function addElectricalFaults(
  model: CircuitModel,
  add: AddFault,
  leaveOut: (count: number) => void,
): void {
  const { compiled } = model;
  const loops = model.loopOhms();
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
  /** Ends of a branch that a leak to the frame would show at. */
  const leakEnds = (branch: Branch) => {
    const ends = (['a', 'b'] as const).filter((end) => branch[end] !== compiled.frame);
    return ends.length > 0 ? ends : (['a'] as const);
  };
  const leaks = (branch: Branch): FaultVariant[] =>
    leakEnds(branch).map((end, at) =>
      leak(branch, end, (at === 0 ? 2 : 1) * (bonded(branch[end]) ? HARMLESS : 1)),
    );
  const weakSpots = (branch: Branch): FaultVariant[] =>
    BREAKDOWN_SHARES.map((share) => {
      const at = { branch: branch.index, end: leakEnds(branch)[0]! };
      const volts = share * model.peakVolts(branch[at.end]);
      return {
        weight: share < 1 ? 2 : 1,
        edits: (ohms) => [{ type: 'leak', at, ohms, breakdownVolts: volts }],
        breakdown: { at, volts, worn: (ohms) => [{ type: 'leak', at, ohms }] },
      };
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
        add(part, 'lowVoltage', kind, LOW_SUPPLY, [
          { weight: 1, edits: (factor) => [{ type: 'emf', branch: body.index, factor }] },
        ]);
        break;
      case 'transformer':
        add(part, 'open', kind, null, [
          { weight: 1, edits: () => [{ type: 'transformer', part: part.index, ohms: Infinity }] },
        ]);
        add(part, 'lowVoltage', kind, LOW_SUPPLY, [
          { weight: 1, edits: (factor) => [{ type: 'transformer', part: part.index, factor }] },
        ]);
        break;
      case 'fuse':
      case 'breaker':
        add(part, 'open', kind, null, [broken(body)]);
        break;
      case 'wire':
        add(part, 'open', kind, null, [broken(body)]);
        add(part, 'highResistance', kind, series(body), [worsened(body)]);
        // A wire that is the frame bond itself cannot leak to the frame.
        if (body.a !== compiled.frame || body.b !== compiled.frame) {
          add(part, 'shortToFrame', kind, leakRange(body), leaks(body), {
            factor: atFrame(body) ? HARMLESS : 1,
          });
          add(part, 'weakInsulation', kind, weakRange(body), weakSpots(body), {
            factor: atFrame(body) ? HARMLESS : 1,
          });
        }
        break;
      case 'pin':
        add(part, 'open', kind, null, [broken(body)]);
        add(part, 'highResistance', kind, series(body), [worsened(body)]);
        break;
      case 'switch':
        add(part, 'stuckOpen', kind, null, [forced(body, false)]);
        add(part, 'stuckClosed', kind, null, [forced(body, true)]);
        add(part, 'highResistance', kind, series(body), [worsened(body)]);
        break;
      case 'pressureSwitch':
        add(part, 'highResistance', kind, series(body), [worsened(body)]);
        break;
      case 'timer':
        add(part, 'stuckOpen', kind, null, [forced(body, false)]);
        add(part, 'stuckClosed', kind, null, [forced(body, true)]);
        break;
      case 'relay': {
        add(part, 'open', kind, null, [broken(body)]);
        add(part, 'shortedTurns', kind, turns(body), [worsened(body)]);
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
        if (contacts[0]) add(part, 'highResistance', kind, series(contacts[0]), contacts.map(worsened));
        break;
      }
      case 'coil':
        add(part, 'open', kind, null, [broken(body)]);
        add(part, 'shortedTurns', kind, turns(body), [worsened(body)]);
        add(part, 'shortToFrame', kind, leakRange(body), leaks(body));
        add(part, 'weakInsulation', kind, weakRange(body), weakSpots(body));
        break;
      case 'diode':
        add(part, 'open', kind, null, [forced(body, false)]);
        add(part, 'short', kind, null, [{ weight: 1, edits: () => bridged(body).edits(SHORT_OHMS) }]);
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
  addBundleShorts(model, add, leaveOut);
  addSwappedConnectors(model, add, leaveOut);
}

/** Neighbours looked at in a thick bundle, and plugs that might be mistaken for each other: near ones first. */
const MOST_BUNDLE_SHORTS = 160;
const MOST_SWAPPED = 12;

/** Pairs of a list, near neighbours first, at most so many; how many more there were goes to `leaveOut`. */
function nearPairs<T>(
  list: readonly T[],
  fits: (one: T, two: T) => boolean,
  most: number,
  leaveOut: (count: number) => void,
): [T, T][] {
  const pairs: [T, T][] = [];
  for (let apart = 1; apart < list.length; apart++) {
    for (let at = 0; at + apart < list.length; at++) {
      const [one, two] = [list[at]!, list[at + apart]!];
      if (fits(one, two)) pairs.push([one, two]);
    }
  }
  leaveOut(Math.max(0, pairs.length - most));
  return pairs.slice(0, most);
}

function addBundleShorts(model: CircuitModel, add: AddFault, leaveOut: (count: number) => void): void {
  const wires = model.compiled.parts.filter(({ part }) => part.kind === 'wire' && part.bundle !== undefined);
  const beside = (one: CompiledPart, two: CompiledPart) => {
    if (one.part.kind !== 'wire' || two.part.kind !== 'wire' || one.part.bundle !== two.part.bundle)
      return false;
    const [from, to] = [one.branches[0]!, two.branches[0]!];
    return ![from.a, from.b].some((node) => node === to.a || node === to.b);
  };
  const range: SeverityRange = { unit: 'ohms', least: 0.01, most: 1e6, mainLeast: 0.01, mainMost: 100 };
  for (const [one, two] of nearPairs(wires, beside, MOST_BUNDLE_SHORTS, leaveOut)) {
    const [from, to] = [one, two].map(({ branches }) => ({ branch: branches[0]!.index, end: 'b' as const }));
    const bridge: FaultVariant = {
      weight: 1,
      edits: (ohms) => [{ type: 'bridge', from: from!, to: to!, ohms }],
    };
    add(one, 'shortBetween', 'wire', range, [bridge], { other: two.part.ref });
  }
}

/** Connectors with the same number of pins can be plugged into each other's place. */
function addSwappedConnectors(
  { compiled }: CircuitModel,
  add: AddFault,
  leaveOut: (count: number) => void,
): void {
  const plugs = compiled.connectors.map((connector) => ({
    connector,
    pins: compiled.parts.filter(({ part }) => part.kind === 'pin' && part.connector === connector),
  }));
  const alike = (one: (typeof plugs)[number], two: (typeof plugs)[number]) =>
    one.pins.length === two.pins.length;
  for (const [ours, theirs] of nearPairs(plugs, alike, MOST_SWAPPED, leaveOut)) {
    const pairs = ours.pins.map(
      (pin, k) => [pin.branches[0]!.index, theirs.pins[k]!.branches[0]!.index] as const,
    );
    const crossed: Edit[] = [{ type: 'cross', pairs }];
    add(ours.pins[0]!, 'swapped', 'pin', null, [{ weight: 1, edits: () => crossed }], {
      other: theirs.connector,
    });
  }
}
