import type { MeaningLimit } from '@/core/diagnosis/meaningLimits';
import type { TestGate } from '@/core/safety/testGate';
import type { CircuitModel } from '@/core/circuit/model';
import type { Reading, Setup, Test } from '@/core/circuit/schema';
import { isDeadKind, nodesOfTest, partOfTest } from '@/core/circuit/testPlace';
import type { Caution } from '@/core/diagnosis/offers';
import type { Outcome } from '@/core/diagnosis/outcomes';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import type { ClearFirst } from '@/core/diagnosis/clearBefore';
import type { Suspect, Verdict } from '@/core/diagnosis/verdict';
import type { Lanes } from '@/core/path/lanes';
import type { Standing } from '@/core/path/standing';
import { ALL_TURNS } from '@/core/path/turns';
import { threeFigures } from '@/core/units/formatQuantity';

/** All wording of the test screen. The core gives data; what a person reads is made here. */
export interface Speaker {
  model: CircuitModel;
  lanes: Lanes;
}

const UNIT: Partial<Record<Test['kind'], string>> = {
  volts: 'V',
  amps: 'A',
  ohms: 'Ω',
  insulation: 'Ω',
  diode: 'V',
  pressure: 'bar',
};

export function modeName({ model }: Speaker, test: Test): string {
  switch (test.kind) {
    case 'volts':
      return [test.from, test.to].some(
        (name) => model.compiled.alternating[model.compiled.nodeIndex.get(name) ?? -1],
      )
        ? 'AC volts'
        : 'DC volts';
    case 'ohms':
      return 'ohms';
    case 'diode':
      return 'diode range';
    case 'insulation':
      return `insulation, ${test.testVolts} V`;
    case 'amps':
      return 'amps, clamp';
    case 'fuse':
      return 'watch the fuse';
    case 'click':
      return 'listen for the click';
    case 'function':
      return 'watch it work';
    case 'code':
      return 'read the codes';
    case 'pressure':
      return 'gauge';
    case 'flow':
      return 'feel what blows';
    case 'moves':
      return 'watch which way it goes';
  }
}

/** Gauge pressure: kPa in a bar. */
export const KPA_IN_BAR = 100;

/** Number of a node's point, or its name when it has none. */
export function pointName({ model, lanes }: Speaker, node: string): string {
  const at = model.compiled.nodeIndex.get(node);
  const label = at === undefined ? undefined : lanes.labelOf.get(at);
  if (label === undefined) return node;
  return lanes.pointOf.has(at!) ? label : `${node} (${label})`;
}

/** Where a test is taken: "7 to 10", "through F7", "Y8". */
export function testPlace(speaker: Speaker, test: Test): string {
  if (test.kind === 'amps') return `through ${test.through}`;
  return (
    partOfTest(test) ??
    nodesOfTest(test)
      .map((name) => pointName(speaker, name))
      .join(' to ')
  );
}

export function quantity(kind: Test['kind'], stored: number): string {
  // Pressures are kept in kPa and read in bar, as gauges show them.
  const value = kind === 'pressure' ? stored / KPA_IN_BAR : stored;
  const unit = UNIT[kind] ?? '';
  const size = Math.abs(value);
  if (unit === 'Ω' && size >= 1000) {
    const [step, prefix] = size >= 1e9 ? [1e9, 'G'] : size >= 1e6 ? [1e6, 'M'] : [1e3, 'k'];
    return `${threeFigures(value / step)} ${prefix}Ω`;
  }
  return `${threeFigures(value)} ${unit}`;
}

export function valueWords(kind: Test['kind'], value: Reading['value']): string {
  if (value === 'OL') return 'OL';
  if (typeof value === 'number') return quantity(kind, value);
  if (typeof value === 'boolean') return value ? 'clicks' : 'no click';
  if (Array.isArray(value)) return value.length === 0 ? 'no code' : `code ${value.join(', ')}`;
  return value;
}

/** A reading in one breath: "OL, 6 to 12, dead" or "Tilt left coil works, tilt left". */
export function readingWords(speaker: Speaker, reading: Reading): string {
  const { kind, value, setup } = reading;
  const part = partOfTest(reading);
  const off = (setup.unplugged ?? []).map((plug) => `${plug} off`);
  const swapped = (setup.swapped ?? []).map(([one, other]) => `${one} and ${other} swapped`);
  const where = [positionWords(setup), ...(isDeadKind(kind) ? [] : [...off, ...swapped])]
    .filter(Boolean)
    .join(', ');
  if (part !== null && kind !== 'amps') {
    return `${partWords(speaker, part)} ${valueWords(kind, value)}${where ? `, ${where}` : ''}`;
  }
  const condition = !isDeadKind(kind) ? where : setup.unplugged?.length ? 'unplugged' : 'dead';
  return `${valueWords(kind, value)}, ${testPlace(speaker, reading)}${condition ? `, ${condition}` : ''}`;
}

export function partWords({ model }: Speaker, ref: string): string {
  const part = model.compiled.circuit.parts.find((one) => one.ref === ref);
  return part?.label ? `${ref} ${part.label.toLowerCase()}` : ref;
}

/** Controls that stand away from rest: "key on, tilt right". */
export function positionWords(setup: Setup): string {
  return Object.entries(setup.controls ?? {})
    .filter(([, position]) => position !== 'rest' && position !== 'off')
    .map(([control, position]) => `${control} ${position}`)
    .join(', ');
}

/** The set-up in numbered lines, at most four. */
export function setupSteps(speaker: Speaker, test: Test): string[] {
  const { setup } = test;
  const { model } = speaker;
  const live = !isDeadKind(test.kind);
  const steps: string[] = [];
  const place = (ref: string) => {
    const part = model.compiled.circuit.parts.find((one) => one.ref === ref);
    return part?.place ? `${ref}, ${part.place.toLowerCase()}` : ref;
  };
  if (setup.pulled?.length) steps.push(`Pull fuse ${setup.pulled.map(place).join(' and ')}. Prove it dead.`);
  else if (setup.isolated?.length)
    steps.push(`Isolate and lock ${setup.isolated.map(place).join(' and ')}. Prove it dead.`);
  const apart = [
    ...(setup.unplugged ?? []).map((connector) => {
      const pin = model.compiled.circuit.parts.find(
        (part) => part.kind === 'pin' && part.connector === connector,
      );
      return `Unplug ${connector}${pin?.place ? `, ${pin.place.toLowerCase()}` : ''}.`;
    }),
    ...(setup.removed?.length
      ? [`Take ${setup.removed.join(' and ')} out of the circuit. Mark the wires first.`]
      : []),
    ...(setup.lifted?.length
      ? [
          `Lift ${setup.lifted.map(({ part, node }) => `${part} off ${pointName(speaker, node)}`).join(', ')}. Mark the wires first.`,
        ]
      : []),
    ...(setup.swapped ?? []).map(([one, two]) => `Swap ${one} with its twin ${two}.`),
    ...(setup.energised?.length ? [`Feed ${setup.energised.join(' and ')} from a bench supply.`] : []),
    ...(setup.jumpers ?? []).map(
      ([from, to]) =>
        `Bridge ${pointName(speaker, from)} to ${pointName(speaker, to)}, fused and tagged, for this reading only.`,
    ),
    ...(setup.open?.length
      ? [
          `Shut the air, vent, take the line off at ${setup.open.map((name) => pointName(speaker, name)).join(', ')}, air on slowly.`,
        ]
      : []),
    ...(setup.plugged?.length
      ? [`Stop the opening at ${setup.plugged.map((name) => pointName(speaker, name)).join(', ')}.`]
      : []),
    ...(setup.override?.length ? [`Push the override of ${setup.override.join(' and ')}.`] : []),
  ];
  if (setup.secured?.length)
    steps.unshift(`Block or lower the load that ${setup.secured.map(place).join(' and ')} holds.`);
  steps.push(...apart);
  const positions = positionWords(setup);
  if (positions)
    steps.push(
      `${live ? 'Power on, ' : 'Set '}${positions}${test.setup.afterSeconds ? ', read at once' : ''}.`,
    );
  else if (live) steps.push('Power on, every control at rest.');
  if ('from' in test) {
    const [from, to] = [pointName(speaker, test.from), pointName(speaker, test.to)];
    const toFrame = test.to === model.compiled.circuit.frame;
    const behind = test.kind === 'volts' && apart.length === 0 ? ' from behind, plugs on' : '';
    steps.push(`Red on ${from}${behind}, black on ${to}${toFrame ? ', bare frame' : ''}.`);
  } else if (test.kind === 'amps') steps.push(`Clamp round one wire of ${test.through}.`);
  else if (test.kind === 'pressure') steps.push(`Gauge at ${pointName(speaker, test.at)}.`);
  else if (test.kind === 'flow') steps.push(`Hand, then soapy water, at ${pointName(speaker, test.at)}.`);
  return steps.slice(0, 4);
}

const HOLDS: readonly (readonly [Caution, string])[] = [
  ['heldLoad', 'This coil holds a load up. Block it or lower it before anything lets go.'],
  ['testerVolts', 'The tester’s leads are live. Electronics unplugged, everyone clear, hands off.'],
  ['lineVolts', 'Line volts kill. Qualified person, rated leads, guarded, not alone.'],
  ['moves', 'The machine may move. Nobody in reach, load down, one hand on the stop.'],
  [
    'jumper',
    'A bridge defeats what it bridges. Site policy first, fused lead, one person at the stop, out again at once.',
  ],
  [
    'pressure',
    'Pressure moves and whips. Eyes covered, hands out of the stroke, vent before a line comes off.',
  ],
  ['mayBlowFuse', 'The fuse may blow. Same rating only, never larger, never a wire.'],
  ['unplug', 'A load held by this coil may drop. Support it before the plug comes off.'],
  ['takeOut', 'Power off and proved dead before a wire comes off.'],
  ['swap', 'Alike only: same volts, ohms, thread and diode. Power off while they change places.'],
  ['benchSupply', 'Fused bench supply, right volts, no longer than the coil may take.'],
  ['powerOff', 'Power off. Never ohms on a live run.'],
  ['live', 'Live run. Right range, right leads, nothing else touching.'],
];
/** Holds that must be ticked before a value can be typed. */
const TICKED: readonly Caution[] = ['heldLoad', 'testerVolts', 'lineVolts', 'moves', 'jumper'];

/** The worst thing that can happen, in one sentence, and whether it must be ticked. */
export function holdWords(cautions: readonly Caution[]): { text: string; mustTick: boolean } {
  const worst = HOLDS.find(([caution]) => cautions.includes(caution));
  return {
    text: worst?.[1] ?? 'Name the energies before you touch anything.',
    mustTick: cautions.some((caution) => TICKED.includes(caution)),
  };
}

/** Why an answer may not mean what it seems to, said to the person who holds the probes. */
export function limitWords(speaker: Speaker, limit: MeaningLimit): string {
  switch (limit.code) {
    case 'parallelPath':
      return `${limit.parts.join(', ')} lies across it: sound, it reads ${quantity('ohms', limit.expected)} here.`;
    case 'leadsDominate':
      return 'As little as your leads have themselves. Hold them together first; better, take volts under load.';
    case 'ghostVoltage':
      return `Nothing ties ${limit.nodes.map((node) => pointName(speaker, node)).join(' and ')}: what shows may be a ghost. Load it and look again.`;
    case 'unloaded':
      return `Nothing draws with ${limit.apart.join(', ')} off: a corroded wire shows full volts too.`;
    case 'heavyContact':
      return `${limit.part} carries ${quantity('amps', limit.amps)}: a pass in ohms proves little. Take its drop under load.`;
    case 'insulationByOhms':
      return 'A few volts do not break down weak insulation: OL here does not clear it.';
    case 'reactiveByOhms':
      return `Ohms show the wire of ${limit.part} only; on alternating current its iron counts too.`;
  }
}

/** What a gate asks of the hold; `null` where the isolation stands as the test needs it. */
export function gateWords(gate: TestGate): { text: string; mustTick: boolean } | null {
  if (gate.state === 'open')
    return {
      text: `Opens ${gate.points.join(', ')} for this test. Locks off by their owners, area clear.`,
      mustTick: true,
    };
  if (gate.state === 'close')
    return { text: `Close ${gate.points.join(', ')} again and prove it dead before this.`, mustTick: true };
  return null;
}

/** Below these a figure is as good as none, in the unit it is kept in. */
const FLOOR: Partial<Record<Test['kind'], number>> = { volts: 0.04, amps: 0.02, pressure: 5 };

/** "12.3–13.0", "under 24", "over 38 Ω, OL". */
export function bandWords(kind: Test['kind'], { reading, low, high }: Outcome): string {
  if (low === undefined || high === undefined) return valueWords(kind, reading);
  if (low === Infinity) return 'OL';
  const floor = FLOOR[kind] ?? 0.3;
  if (high === Infinity) return `over ${quantity(kind, low)}, OL`;
  if (low <= floor && low > -floor * 20) {
    return high <= floor && kind !== 'volts'
      ? `under ${quantity(kind, Math.max(high, floor))}`
      : `under ${quantity(kind, high)}`;
  }
  const [a, b] = [quantity(kind, low), quantity(kind, high)];
  const [unitA, unitB] = [a.split(' ')[1], b.split(' ')[1]];
  if (unitA === unitB) return `${a.split(' ')[0]}–${b}`;
  // Over more than one step of the unit two figures say enough.
  const [roughA, roughB] = [low, high].map((edge) => quantity(kind, Number(edge.toPrecision(2))));
  return `${short(roughA!)}–${short(roughB!)}`;
}

/** Drops a decimal zero: "60.0 Ω" is "60 Ω". */
function short(text: string): string {
  return text.replace(/\.0+(?= )/, '');
}

/** What an outcome says about the run, in a few words. */
export function thenWords(test: Test, outcome: Outcome, expected: Reading['value']): string {
  const off = test.setup.unplugged?.join(', ');
  if (test.kind === 'code' && off) return unplugWords(off, outcome, expected);
  if (outcome.sound) return 'As drawn. Look elsewhere.';
  const { kind } = test;
  const value = typeof outcome.reading === 'number' ? outcome.reading : null;
  const wanted = typeof expected === 'number' ? expected : null;
  if (kind === 'ohms' || kind === 'insulation') {
    if (outcome.reading === 'OL') return 'The way is broken.';
    if (kind === 'insulation') return 'Leaks to the frame here.';
    if (value !== null && wanted !== null && value < wanted) return 'Shorted, or leaking.';
    return 'A bad joint.';
  }
  if (kind === 'volts' && value !== null && wanted !== null) {
    const supply = Math.abs(wanted) > 1;
    if (!supply) return Math.abs(value) > 1 ? 'The fall is here.' : 'A small fall here.';
    if (Math.abs(value) < 0.1 * Math.abs(wanted)) return 'Feed lost before here.';
    return Math.abs(value) < Math.abs(wanted) ? 'Starved by a joint.' : 'Nothing draws on it.';
  }
  if (kind === 'amps')
    return value !== null && wanted !== null && value > wanted ? 'Draws too much.' : 'Starved, or broken.';
  if (kind === 'diode') return outcome.reading === 'OL' ? 'Does not conduct.' : 'Conducts too well.';
  if (kind === 'pressure' && value !== null && wanted !== null) {
    return Math.abs(value) < Math.abs(wanted)
      ? 'Pressure lost before here.'
      : 'Pressure that should not be here.';
  }
  if (kind === 'moves') return outcome.reading === 'still' ? 'Does not move.' : 'Goes the wrong way.';
  if (kind === 'flow') return outcome.reading === 'none' ? 'Shut, or starved.' : 'Leaks past, or is let go.';
  if (kind === 'fuse') return outcome.reading === 'blows' ? 'The short is in here.' : 'No short in here.';
  return 'Not as drawn.';
}

/** What a code does when a plug comes off clears one side of it: controller and loom, or what hangs on the plug. */
function unplugWords(off: string, outcome: Outcome, expected: Reading['value']): string {
  const [said, wanted] = [outcome.reading, expected].map((one) => (Array.isArray(one) ? one.join() : ''));
  if (said === wanted) return `Controller and loom up to ${off} see it come off. They are working.`;
  if (said === '') return `The controller does not see ${off} come off.`;
  return `${off} makes no odds to it: before the plug, loom or controller.`;
}

/** Where an outcome would leave the doubt: "X8.1 9, Y8 5". */
export function goesToWords({ means }: Outcome): string {
  const parts = new Map<string, number>();
  for (const { part, share } of means) {
    const name = part ?? 'none';
    parts.set(name, (parts.get(name) ?? 0) + share);
  }
  return [...parts]
    .map(([name, share]) => ({ name, turns: Math.round(share * ALL_TURNS) }))
    .filter(({ turns }) => turns > 0)
    .slice(0, 2)
    .map(({ name, turns }) => `${name} ${turns}`)
    .join(', ');
}

/** Why this test: "Splits the doubt 12 against 8". */
export function reasonWords({ outcomes, proof }: RankedTest, verdict: Verdict): string {
  if (proof && verdict.state === 'keepTesting' && verdict.part) {
    const { have = 0 } = verdict.proofs ?? {};
    return `${have === 0 ? 'First' : 'Second'} proof before ${verdict.part} is called bad`;
  }
  const most = Math.max(0, ...outcomes.map(({ share }) => share));
  const big = Math.min(ALL_TURNS - 1, Math.max(1, Math.round(most * ALL_TURNS)));
  return `Splits the doubt ${big} against ${ALL_TURNS - big}`;
}

const FAULT_WORDS: Readonly<Record<string, string>> = {
  noOutput: 'gives nothing',
  lowVoltage: 'gives too little',
  open: 'open',
  highResistance: 'bad joint',
  shortToFrame: 'shorted to frame',
  weakInsulation: 'breaks down to frame',
  shortedTurns: 'shorted turns',
  stuckOpen: 'does not close',
  stuckClosed: 'does not open',
  welded: 'welded shut',
  short: 'shorted',
  reversed: 'wrong way round',
  stuckOn: 'stays on',
  stuck: 'stuck',
  shortBetween: 'shorted to a neighbour',
  swapped: 'plugs swapped',
  lowPressure: 'too little pressure',
  blocked: 'blocked',
  leaking: 'leaks',
  stuckAtRest: 'stuck at rest',
  stuckShifted: 'stuck shifted',
  stuckMidway: 'stuck mid-way',
  sealLeak: 'seal leaks',
  ventBlocked: 'vent blocked',
  jammed: 'jammed',
  drifted: 'switches at the wrong pressure',
};
const CLEAR_WORDS: Readonly<Record<ClearFirst['reason'], string>> = {
  suppressionDiode: 'shorted or the wrong way round, it would kill the new part',
  overVoltage: 'too many volts would burn the new one: read them under load',
  jammedSpool: 'jammed, it would leave an alternating coil at its inrush current',
  missingAir: 'without pilot pressure a good spool stands mid-way',
  overload: 'read what it draws before the new part carries it',
};

/** Why another part comes first: "V8: shorted or …". */
export function clearWords({ part, reason }: ClearFirst): string {
  return `${part}: ${CLEAR_WORDS[reason]}.`;
}

export function faultWords({
  fault,
  severityOhms,
  other,
  intermittent,
  with: partner,
}: Pick<Suspect, 'fault'> & Partial<Suspect>): string {
  const words = FAULT_WORDS[fault] ?? fault;
  const size =
    severityOhms !== undefined &&
    (fault === 'highResistance' || fault === 'shortedTurns' || fault === 'shortToFrame')
      ? `, about ${quantity('ohms', Number(severityOhms.toPrecision(2)))}`
      : '';
  return `${words}${other ? ` (${other})` : ''}${size}${intermittent ? ', comes and goes' : ''}${partner ? `, with ${partner.part} ${FAULT_WORDS[partner.fault] ?? partner.fault}` : ''}`;
}

/** What the readings mean so far, at most three lines for the figure. */
export function statementLines(
  speaker: Speaker,
  verdict: Verdict,
  suspects: readonly Suspect[],
  standings: readonly Standing[],
  readings: readonly Reading[],
  next: RankedTest | undefined,
): string[] {
  const { parts } = speaker.model.compiled;
  if (readings.length === 0) {
    const place = next ? testPlace(speaker, next.test) : '';
    return ['The doubt is spread evenly.', ...(place ? [`One reading, ${place}, moves most of it.`] : [])];
  }
  const spared = parts.filter(({ index }) => standings[index]!.state === 'spared');
  const doubted = parts.filter(({ index }) => standings[index]!.turns > 0);
  const last = readings.at(-1)!;
  switch (verdict.state) {
    case 'name': {
      const lead = suspects.find(({ part }) => part === verdict.part)!;
      return [
        `${partWords(speaker, verdict.part)} is proved bad: ${faultWords(lead)}.`,
        ...verdict.proofs.readings
          .slice(0, 2)
          .map((at) => `${sentence(readingWords(speaker, readings[at]!))}`),
      ];
    }
    case 'unexplained':
      return [
        'The readings do not fit this drawing.',
        `Take “${readingWords(speaker, readings[verdict.reading]!)}” again`,
        'before anything else, or check the drawing.',
      ];
    case 'noFault':
      return [
        'Every reading is what a sound circuit gives.',
        'What these readings could not see is still in doubt.',
      ];
    case 'keepTesting': {
      const lines = [`Last: ${readingWords(speaker, last)}.`];
      if (verdict.retake !== undefined) {
        return [
          `Reading ${verdict.retake + 1} does not fit the others.`,
          'Take it again before anything else.',
        ];
      }
      if (spared.length > 0) {
        lines.push(
          `${spared.length} part${spared.length === 1 ? ' has' : 's have'} carried current and ${spared.length === 1 ? 'is' : 'are'} spared.`,
        );
      }
      if (verdict.part && (verdict.share ?? 0) > 0.8)
        lines.push(`${verdict.part} stands clear. It wants proof on the part itself.`);
      else if (doubted.length > 0)
        lines.push(`The doubt is on ${listWords(doubted.map(({ part }) => part.ref))}.`);
      return lines;
    }
  }
}

function listWords(names: readonly string[]): string {
  if (names.length > 5) return `${names.slice(0, 4).join(', ')} and ${names.length - 4} more`;
  return names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names.at(-1)}` : (names[0] ?? '');
}

function sentence(text: string): string {
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
}

/** For and against, the two strongest of each. */
export function evidenceWords(
  speaker: Speaker,
  evidence: Suspect['for'],
  readings: readonly Reading[],
): string {
  if (evidence.length === 0) return 'Nothing yet.';
  return evidence
    .slice(0, 2)
    .map(({ reading }) => sentence(readingWords(speaker, readings[reading]!)))
    .join(' ');
}
