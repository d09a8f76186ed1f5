import type { Caution } from '@/core/diagnosis/cautionsOf';
import type { TestGate, WorkStanding } from '@/core/job/rules/testGate';

/** What can happen, the worst first; one without words is a type error. */
const HOLD_WORDS: Readonly<Record<Caution, string>> = {
  heldLoad: 'This coil holds a load up. Block it or lower it before anything lets go.',
  freedLoad: 'Current on this coil frees the load. Block it or lower it before anything is switched on.',
  pressedLoad:
    'Pressure holds a load here. Block it or lower it before a line, a valve or the supply is touched.',
  testerVolts: 'The tester’s leads are live. Electronics unplugged, everyone clear, hands off.',
  electronicsOff: 'Electronics unplugged before the tester goes on.',
  lineVolts: 'Line volts kill. Qualified person, rated leads, guarded, not alone.',
  moves: 'The machine may move. Nobody in reach, load down, one hand on the stop.',
  jumper:
    'A bridge defeats what it bridges. Site policy first, fused lead, one person at the stop, out again at once.',
  refrigerant:
    'Refrigerant under pressure. Gloves and eyes covered, air let through, no flame; nothing is let out.',
  oil: 'Oil under pressure goes through glove and skin. Eyes covered, no hand near a leak, let down to the tank before a line comes off.',
  pressure: 'Pressure moves and whips. Eyes covered, hands out of the stroke, vent before a line comes off.',
  mayBlowFuse: 'The fuse may blow. Same rating only, never larger, never a wire.',
  unplug: 'What hangs on this plug lets go when it comes off. Nobody in reach of it.',
  takeOut: 'Power off and proved dead before a wire comes off.',
  swap: 'Alike only: same volts, ohms, thread and diode. Power off while they change places.',
  benchSupply: 'Fused bench supply, right volts, no longer than the coil may take.',
  powerOff: 'Power off. Never ohms on a live run.',
  live: 'Live run. Right range, right leads, nothing else touching.',
};
const HOLDS = Object.entries(HOLD_WORDS) as [Caution, string][];
/** Holds that must be ticked before a value can be typed. */
const TICKED: readonly Caution[] = [
  'heldLoad',
  'freedLoad',
  'pressedLoad',
  'testerVolts',
  'lineVolts',
  'moves',
  'jumper',
];

/** What stands in the lines, said in short behind a motion: a gauge on a running machine has both. */
const IN_THE_LINES: Partial<Readonly<Record<Caution, string>>> = {
  refrigerant: 'Refrigerant: gloves and eyes covered, nothing is let out.',
  oil: 'Oil under pressure: eyes covered, no hand near a leak.',
  pressure: 'Under pressure: eyes covered.',
};

/** The worst thing that can happen, in one sentence, what stands in the lines beside it, and whether it must be ticked. */
export function holdWords(cautions: readonly Caution[]): { text: string; mustTick: boolean } {
  const worst = HOLDS.find(([caution]) => cautions.includes(caution));
  const beside = worst?.[0] === 'moves' ? cautions.flatMap((caution) => IN_THE_LINES[caution] ?? []) : [];
  return {
    text: worst ? [worst[1], ...beside].join(' ') : 'Name the energies before you touch anything.',
    mustTick: cautions.some((caution) => TICKED.includes(caution)),
  };
}

/** Each thing that can hurt and has to be ticked before a single test, where several are taken one after another; moving is said by itself. */
export function graveWords(cautions: ReadonlySet<Caution>): string[] {
  return HOLDS.filter(
    ([caution]) => caution !== 'moves' && TICKED.includes(caution) && cautions.has(caution),
  ).map(([, text]) => text);
}

/** What goes before any change to the machine. */
export function changeWords(standing: WorkStanding): string {
  switch (standing.state) {
    case 'safe':
      return 'Locked and proved: keep it so while anything is changed.';
    case 'unsigned':
      return 'Make it safe before anything is changed.';
    case 'openedForTest':
      return `Opened for a test: ${standing.open.map(({ label }) => label).join(', ')}. Each is closed and proved again before anything is changed.`;
  }
}

/** Why a test is not to be taken as things stand, and what opens the way; null where it may be. */
export function shutWords(gate: TestGate): { what: string; why: string } | null {
  switch (gate.state) {
    case 'free':
    case 'open':
      return null;
    case 'reliefOff':
      return { what: 'Not to be taken.', why: reliefWords(gate.reliefs) };
    case 'oilOpened':
      return { what: 'Not to be taken.', why: oilWords(gate.at) };
    case 'refrigerantOpened':
      return { what: 'Not to be taken.', why: refrigerantWords(gate.at) };
    case 'notLicensed':
      return {
        what: 'Not yours to take.',
        why: 'It brings a meter to line volts. Somebody licensed for line voltage takes it, and writes it down.',
      };
    case 'othersLocks':
      return {
        what: `${gate.points.join(', ')} is locked by ${gate.owners.join(', ')}.`,
        why: 'This one needs its power. A lock comes off by its owner’s hand alone.',
      };
    case 'unsigned':
      return { what: 'Shut until the work is made safe.', why: 'This one is taken dead.' };
    case 'close':
      return {
        what: `${gate.points.join(', ')} stands open.`,
        why: 'Close it again and prove it dead before this.',
      };
    case 'forbidden':
      return {
        what: 'Not to be taken.',
        why: `It takes ${gate.guards.join(', ')} out of action, which guards or may guard a person or a limit. Say on the drawing whom it protects.`,
      };
  }
}

/** What a gate asks of the hold; `null` where the isolation stands as the test needs it. */
export function gateWords(gate: TestGate): string | null {
  if (gate.state === 'open')
    return `Opens ${gate.points.join(', ')} for this test: locks off by their owners.`;
  return null;
}

/** Who may open a refrigerant circuit here, on a sheet that is about one. */
export function sheetLicenceWords(open: boolean): string {
  return open
    ? 'Only licensed people open a refrigerant circuit. Recover first, ventilate, no flame near leaked gas.'
    : 'Only licensed people open a refrigerant circuit, and you are not said to be one here. This sheet stays shut.';
}

/** Who changes a part that holds refrigerant. */
export function licensedWords(named: readonly string[]): string {
  return named.length === 0
    ? 'Only somebody licensed for refrigerant does this, and nobody here is said to be: a lead says it under People.'
    : `Only who is licensed for refrigerant does this, and writes it down: ${named.join(', ')}. Recover first, ventilate, no flame near leaked gas.`;
}

/** Who takes a reading at line volts. */
export function lineLicenceWords(named: readonly string[]): string {
  return named.length === 0
    ? 'Only somebody licensed for line voltage reads or locks this, and nobody here is said to be: a lead says it under People.'
    : `You are not licensed for line voltage. ${named.join(' or ')} reads and locks this, and writes it down.`;
}

/** Why a refrigerant circuit is opened for no reading. */
export function refrigerantWords(at: readonly string[]): string {
  return `It opens the refrigerant circuit at ${at.join(', ')}: the cold burns skin and eyes, the gas takes the air to breathe, and it may not be let out. Only gauges that somebody licensed has fitted are read.`;
}

/** Why a relief valve stays where it is. */
export function reliefWords(reliefs: readonly string[]): string {
  return `It takes ${reliefs.join(', ')} from what it guards while the pressure is on: without it nothing holds that back, and what is weakest bursts. Stop the source and let it down first.`;
}

/** Why oil is not opened under pressure, and how it is read. */
export function oilWords(at: readonly string[]): string {
  return `It opens oil under pressure at ${at.join(', ')}: a jet goes through skin and glove. Pump off and let down first, then fit a gauge.`;
}
