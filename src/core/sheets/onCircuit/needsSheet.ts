import type { CompiledPart } from '../../circuit/compile';
import { mediumOf, type Medium } from '../../circuit/medium';
import type { CircuitModel } from '../../circuit/model';
import type { Part, PartOf, Reading, Setup, Test } from '../../circuit/schema';
import { mayTake } from '../../diagnosis/candidateTests';
import { workingPatterns } from '../../diagnosis/patterns';
import type { ShopMarks } from '../../tables/marks';
import { heldAgainst, uniqueRows, type HeldRow } from '../heldAgainst';
import { judgeNeeds, type NeedsAnswer, type NeedsSheet } from '../needs/needs';
import { loadedPattern } from './loadedPattern';
import {
  areWired,
  asksFor,
  cellOf,
  hangsOn,
  isBare,
  sizeOf,
  HEAD,
  nameOf,
  pickBetween,
  pickOf,
  underCommand,
  volts,
  type JobSheet,
  type SheetCell,
  type SheetRow,
} from './jobSheet';
import type { SheetVerdicts } from './verdicts';

/** Looks at a valve, in the order of its sheet, with the field of the sheet that each fills in. */
const LOOKS = {
  supply: 'supplyKpa',
  override: 'override',
  clicks: 'clicks',
  bit: 'bit',
  coil: 'coilVolts',
  card: 'cardVolts',
  otherCoil: 'otherCoilVolts',
  exhaust: 'exhaust',
  exhaustAlone: 'exhaustAlone',
  outlet: 'outletCommanded',
  outletAtRest: 'outletAtRest',
  coilAtRest: 'coilAtRestVolts',
  outletGauge: 'outletKpa',
  inlet: 'inlet',
  commanded: 'commanded',
} as const satisfies Readonly<Record<string, keyof NeedsSheet>>;
export type NeedCheck = keyof typeof LOOKS;
const CHECKS = Object.keys(LOOKS) as NeedCheck[];
type Valve = Extract<Part, { kind: 'valve' }>;
type Looks = Record<NeedCheck, SheetCell | null>;

/** A gauge stands near what it shows on the sound machine within this share; less than the other is too little for anything. */
const NEAR_SHARE = 0.85;
const STARVED_SHARE = 0.5;
/** A finger feels nothing below this, kPa. */
const FELT_KPA = 20;

/** Each valve with what it needs, look by look: electricity, air, cleanliness. */
export function needsSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
): JobSheet<'needs'> | null {
  const rows: SheetRow<'needs'>[] = [];
  const answers: NeedsAnswer[] = [];
  const held: HeldRow[] = [];
  let next: JobSheet['next'] = null;
  const medium = mediumOf(model);
  for (const { part } of model.compiled.parts) {
    if (part.kind !== 'valve') continue;
    for (const { name, ref, other } of coilsOf(part)) {
      const coil = partOf(model, ref);
      const looks = looksAt(model, part, coil, other, readings);
      if (!looks) continue;
      const document = documentOf(part, coil, looks, medium);
      const answer = judgeNeeds(document, marks);
      const first = rows.length;
      for (const check of CHECKS) {
        const cell = looks[check];
        if (cell) rows.push({ name, check, cells: [cell], verdict: verdictOf(check, cell, answer) });
      }
      answers.push(answer);
      held.push(...heldAgainst(document, answer, marks));
      next ??= nextLook(rows, first, answer);
    }
  }
  if (rows.length === 0) return null;
  return { name: 'needs', columns: ['look'], rows, next, answers, held: uniqueRows(held) };
}

/** The coils of a valve, each with the other one and with what its rows are called: a valve of two is looked at in either command. */
function coilsOf({ ref, coil, coil2 }: Valve): { name: string; ref: string; other: string | undefined }[] {
  if (coil2 === undefined) return [{ name: ref, ref: coil, other: undefined }];
  return [
    { name: `${ref} ${coil}`, ref: coil, other: coil2 },
    { name: `${ref} ${coil2}`, ref: coil2, other: coil },
  ];
}

/** The look that the sheet asks for; where that cannot be taken here, the first that is open, while nothing is missing yet. */
function nextLook(
  rows: readonly SheetRow<'needs'>[],
  first: number,
  { next, missing }: NeedsAnswer,
): JobSheet['next'] {
  if (next === null || typeof next !== 'object' || !('ask' in next)) return null;
  const open = rows.flatMap(({ check, cells }, at) =>
    at >= first && cells[0]!.value === null ? [{ field: LOOKS[check as NeedCheck], at }] : [],
  );
  const meant = open.find(({ field }) => field === next.ask) ?? (missing.length === 0 ? open[0] : undefined);
  return meant ? [meant.at, 0] : null;
}

/** The looks at a valve under the command that feeds one coil of it; null where nothing feeds that. */
function looksAt(
  model: CircuitModel,
  valve: Valve,
  coil: CompiledPart,
  otherCoil: string | undefined,
  readings: readonly Reading[],
): Looks | null {
  const patterns = workingPatterns(model);
  const body = coil.branches[0]!;
  const loaded = loadedPattern(model, patterns, body.index);
  if (!loaded) return null;
  const { setup } = loaded;
  const commanded = underCommand(setup);
  const plain = (test: Test) => commanded(test) && isBare(test);
  // What else moves in the same command, on another valve, says nothing of this one.
  const moved =
    patterns
      .find((one) => one.setup === setup)!
      .driven.find((ref) => hangsOn(model, { kind: 'moves', part: ref, setup }, body.index)) ?? null;
  const ends = (part: CompiledPart) =>
    [nameOf(model, part.branches[0]!.a), nameOf(model, part.branches[0]!.b)] as const;
  const output = ends(coil)
    .map((node) => outputOf(model, node))
    .find((found) => found !== null);
  const card = output?.nodes.out;
  const inlet = valve.nodes['1']!;
  const [exhausts, outlets] = [portsOf(valve, ['3', '5']), portsOf(valve, ['4', '2'])];

  const cell = (test: Test | null) => cellOf(model, test, readings);
  const first = (ports: readonly string[], of: (at: string) => Test | null) =>
    cell(ports.map(of).find((test) => test !== null) ?? null);
  const fed = (test: Test, expected: Reading['value']) => plain(test) && sizeOf(expected) > 1;
  const moves = (fits: (test: Test) => boolean) =>
    moved === null
      ? null
      : cell(pickOf(model, 'moves', moved, (test, expected) => fits(test) && expected !== 'still'));
  const blows = (at: string) =>
    pickAt(
      model,
      'flow',
      at,
      (test, expected) => commanded(test) && has(test.setup.open, at) && expected === 'full',
    );
  const medium = mediumOf(model);
  const voltsAcross = ([from, to]: readonly [string, string], when: Setup) =>
    mayTake(model, { kind: 'volts', from, to, setup: when });
  // At the outlet that the command sends it to: the others stand at nothing on the sound machine, too.
  const gauge = (at: string) =>
    pickAt(model, 'pressure', at, (test, expected) => plain(test) && sizeOf(expected) > FELT_KPA);
  const outlet = outlets.map(blows).find((test) => test !== null) ?? null;
  const opened = outlet?.setup.open?.[0];
  const atRest =
    opened === undefined
      ? null
      : cell(mayTake(model, { kind: 'flow', at: opened, setup: { open: [opened] } }));
  // One that stays where it was sent blows there at rest, too, and rightly.
  const rests = atRest?.expected === 'none';
  return {
    supply: cell(pickAt(model, 'pressure', inlet, plain)),
    override: moves((test) => has(test.setup.override, valve.ref)),
    clicks: cell(pickOf(model, 'click', coil.part.ref, (test, expected) => plain(test) && expected === true)),
    bit: output ? cell(pickOf(model, 'bit', output.ref, asksFor(plain))) : null,
    coil: cell(pickBetween(model, 'volts', ends(coil), fed)),
    card: card ? cell(pickBetween(model, 'volts', [card, nameOf(model, model.compiled.frame)], fed)) : null,
    otherCoil: otherCoil === undefined ? null : cell(voltsAcross(ends(partOf(model, otherCoil)), setup)),
    exhaust: first(exhausts, (at) => pickAt(model, 'pressure', at, (test) => has(test.setup.plugged, at))),
    exhaustAlone: first(exhausts, (at) => aloneTest(model, valve, at, setup)),
    outlet: cell(outlet),
    outletAtRest: rests ? atRest : null,
    coilAtRest: rests ? cell(voltsAcross(ends(coil), {})) : null,
    outletGauge: medium === 'oil' ? first(outlets, gauge) : null,
    inlet: cell(blows(inlet)),
    commanded: moves(plain),
  };
}

/** An exhaust stopped with the lines to what the valve moves off and its outlets plugged; null where that may not be read. */
function aloneTest(model: CircuitModel, valve: Valve, at: string, setup: Setup): Test | null {
  const outlets = portsOf(valve, ['2', '4']);
  const lifted = model.compiled.parts
    .filter(({ part }) => part.ref !== valve.ref)
    .flatMap(({ part, nodes }) =>
      nodes
        .map((node) => model.compiled.nodeNames[node]!)
        .filter((node) => outlets.includes(node))
        .map((node) => ({ part: part.ref, node })),
    );
  return mayTake(model, {
    kind: 'pressure',
    at,
    setup: { ...setup, lifted, plugged: [at, ...outlets] },
  });
}

/** The sheet as its looks fill it in. */
function documentOf(valve: Valve, coil: CompiledPart, looks: Looks, medium: Medium): NeedsSheet {
  const ratedVolts = coil.branches[0]!.volts;
  return {
    ...HEAD,
    sheet: 'needs',
    medium,
    supplyKpa: volts(looks.supply),
    restKpa: undefined,
    neededKpa: neededKpa(valve, looks.supply),
    inlet: blowOf(looks.inlet),
    wet: undefined,
    clicks: typeof looks.clicks?.value === 'boolean' ? looks.clicks.value : undefined,
    bit: (looks.bit?.value ?? null) === null ? undefined : looks.bit!.value === '1',
    cardVolts: volts(looks.card),
    cableVolts: undefined,
    coilVolts: volts(looks.coil),
    otherCoilVolts: volts(looks.otherCoil),
    twoCoils: valve.coil2 !== undefined,
    ratedVolts: ratedVolts > 0 ? ratedVolts : undefined,
    commanded: motionOf(looks.commanded),
    override: motionOf(looks.override),
    exhaust: feltAt(looks.exhaust),
    exhaustAlone: feltAt(looks.exhaustAlone),
    outlet: undefined,
    outletCommanded: blowOf(looks.outlet),
    outletAtRest: blowOf(looks.outletAtRest),
    coilAtRestVolts: volts(looks.coilAtRest),
    outletKpa: volts(looks.outletGauge),
    onNeighboursPlug: undefined,
    plugOnNeighbour: undefined,
  };
}

/**
 * Least pressure that it shifts with: its pilot's where the drawing says so. Where it does not, what is near the sound machine's suffices
 * and less than half of it does not; between the two it is not known.
 */
function neededKpa({ pilotKPa }: Valve, supply: SheetCell | null): number | undefined {
  if (pilotKPa !== undefined && pilotKPa > 0) return pilotKPa;
  const read = volts(supply);
  if (read === undefined || typeof supply?.expected !== 'number') return undefined;
  const sound = Math.abs(supply.expected);
  if (read >= NEAR_SHARE * sound) return NEAR_SHARE * sound;
  return read < STARVED_SHARE * sound ? STARVED_SHARE * sound : undefined;
}

function motionOf(cell: SheetCell | null): NeedsSheet['commanded'] {
  if (!cell || cell.value === null) return undefined;
  return cell.value === 'still' ? 'still' : 'moves';
}

function feltAt(cell: SheetCell | null): NeedsSheet['exhaust'] {
  const kPa = volts(cell);
  return kPa === undefined ? undefined : kPa > FELT_KPA ? 'pushes' : 'none';
}

function blowOf(cell: SheetCell | null): NeedsSheet['outlet'] {
  const blow = cell?.value;
  if (blow === 'bubbles') return 'none';
  return blow === 'full' || blow === 'weak' || blow === 'none' ? blow : undefined;
}

/** Need that a look tells of by itself. */
const OF_NEED = {
  supply: 'air',
  inlet: 'air',
  coil: 'electricity',
  bit: 'electricity',
  card: 'electricity',
  clicks: 'coil',
} as const;

/** What a single look says; what tells only together with others stands in the sentence above. */
function verdictOf(
  check: NeedCheck,
  { value }: SheetCell,
  { missing, has: known }: NeedsAnswer,
): SheetVerdicts['needs'] | null {
  if (value === null) return null;
  if (check in OF_NEED) {
    const need = OF_NEED[check as keyof typeof OF_NEED];
    return missing.includes(need) ? 'bad' : known.includes(need) ? 'good' : null;
  }
  return (check === 'override' || check === 'commanded') && value === 'still' ? 'bad' : null;
}

/** The output that a coil's end hangs on over wires and plugs. */
function outputOf(model: CircuitModel, node: string): PartOf<'driver'> | null {
  const { compiled } = model;
  const at = compiled.nodeIndex.get(node)!;
  for (const { part } of compiled.parts)
    if (part.kind === 'driver' && areWired(model, compiled.nodeIndex.get(part.nodes.out)!, at)) return part;
  return null;
}

function partOf({ compiled }: CircuitModel, ref: string): CompiledPart {
  return compiled.parts[compiled.partIndex.get(ref)!]!;
}

function portsOf({ nodes }: Valve, ports: readonly ('2' | '3' | '4' | '5')[]): string[] {
  return ports.flatMap((port) => nodes[port] ?? []);
}

function pickAt(
  model: CircuitModel,
  kind: 'pressure' | 'flow',
  at: string,
  fits: (test: Test, expected: Reading['value']) => boolean,
): Test | null {
  return pickBetween(model, kind, [at, at], fits);
}

const has = (list: readonly string[] | undefined, one: string) => list?.includes(one) ?? false;
