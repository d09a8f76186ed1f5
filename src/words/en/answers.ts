import { passWords } from './heldAgainst';
import type { Reading, Test } from '@/core/circuit/schema';
import { figureOf } from '@/core/kinds/reading/index';
import type { MeaningLimit } from '@/core/diagnosis/meaningLimits';
import type { FaultName } from '@/core/diagnosis/faultTypes';
import type { Outcome } from '@/core/diagnosis/outcomes';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import type { Verdict } from '@/core/diagnosis/verdict';
import type { Yardstick } from '@/core/diagnosis/yardsticks';
import { ALL_TURNS } from '@/core/path/turns';
import type { GaugeMark } from '@/core/units/quantities';
import { siteTime } from '@/core/units/siteTime';
import { figureWords, kindOfPart, pointName, quantity, valueWords, type Speaker } from './readings';

/** Why an answer may not mean what it seems to, said to the person who holds the probes. */
export function limitWords(speaker: Speaker, limit: MeaningLimit): string {
  switch (limit.code) {
    case 'parallelPath':
      return limit.parts.length === 0
        ? `Other ways lie across it: sound, it reads ${quantity('ohms', limit.expected)} here.`
        : `${limit.parts.join(', ')} ${limit.parts.length > 1 ? 'lie' : 'lies'} across it: sound, it reads ${quantity('ohms', limit.expected)} here.${limit.lift === null ? '' : ` With ${limit.lift} off it is read alone.`}`;
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
    case 'restsLower':
      return kindOfPart(speaker, limit.part) === 'motor'
        ? `${limit.part} is drawn as it runs: standing, a meter reads a good deal less. Few ohms through it are no short.`
        : `${limit.part} is drawn as it glows: cold, a meter reads about a tenth. Few ohms through it are no short.`;
  }
}

/** What an answer is held against, and where that comes from. */
export function yardstickWords(
  kind: Test['kind'],
  yardstick: Yardstick,
  timeZone: string,
  unit: GaugeMark,
): string {
  switch (yardstick.code) {
    case 'drawn': {
      const { part, ohms, tolerance } = yardstick;
      return `${part} is drawn with ${quantity('ohms', ohms)} ± ${Math.round(100 * tolerance)} % at 20 °C.`;
    }
    case 'twin':
      return `Its twin ${yardstick.part} read ${valueWords(kind, yardstick.value, unit)}.`;
    case 'past':
      return `Proved good here: ${valueWords(kind, yardstick.value, unit)}, ${siteTime(yardstick.at, timeZone).day}, job ${yardstick.jobNumber}.`;
    case 'drop':
      return `Shop rule: good up to ${quantity('volts', yardstick.good)}, repair from ${quantity('volts', yardstick.repair)}.`;
    case 'insulation':
      if (typeof yardstick.by === 'object')
        return `At least ${quantity('ohms', yardstick.ohms)} (${yardstick.by.standard}).`;
      return `Site policy, insulation passes from: ${passWords(yardstick.by)}.`;
  }
}

/** Of the vacuum that should be there less than this share is none. */
const VACUUM_LOST = 0.1;
/** A band that ends above nothing and begins no lower than this is one around nothing, kPa. */
const ABOUT_NOTHING = -10;
/** From here on upwards no vacuum is left, kPa. */
const VACUUM_GONE = 1;

/** "12.3 to 13.0 V", "under 24 V", "over 38 Ω, OL". */
export function bandWords(kind: Test['kind'], { reading, low, high }: Outcome, unit: GaugeMark): string {
  if (low === undefined || high === undefined) return valueWords(kind, reading, unit);
  const words = (value: number) => figureWords(kind, value, unit);
  const never = kind === 'changes' ? 'does not change over' : 'OL';
  if (low === Infinity) return never;
  const over = figureOf(kind).over !== Infinity;
  if (low === -Infinity && high === Infinity) return over ? 'any figure, OL' : 'any figure';
  const gauge = kind === 'pressure';
  if (gauge && low === -Infinity && high < 0) return `more vacuum than ${short(words(high))}`;
  // About nothing a gauge stands a little to either side; that is no vacuum.
  if (gauge && low < (high === Infinity ? 0 : ABOUT_NOTHING) && low > -Infinity && high > VACUUM_GONE)
    return `less vacuum than ${short(words(low))}`;
  if (high === Infinity) return `over ${short(words(low))}${over ? `, ${never}` : ''}`;
  if (low === -Infinity) return `under ${short(words(high))}`;
  // A vacuum gauge runs the other way.
  const ends = unit === 'inHg' && kind === 'pressure' ? [high, low] : [low, high];
  const [a, b] = ends.map(words) as [string, string];
  const [unitA, unitB] = [a.split(' ')[1], b.split(' ')[1]];
  // A dash between figures that may be below zero would be read as a sign.
  const between = Number.parseFloat(a) < 0 || Number.parseFloat(b) < 0 ? ' to ' : '–';
  // A decimal zero stands only beside figures that have decimals: 77–103 Ω, 24.0–24.3 V.
  const [shortA, shortB] = [short(a), short(b)];
  const [from, to] = /\.\d/.test(shortA) || /\.\d/.test(shortB) ? [a, b] : [shortA, shortB];
  // An edge is written as the band beside it writes it: of two that share one, neither reaches into the other.
  return unitA === unitB ? `${from.split(' ')[0]}${between}${to}` : `${shortA}${between}${shortB}`;
}

/** Drops a decimal zero: "60.0 Ω" is "60 Ω". */
function short(text: string): string {
  return text.replace(/\.0+(?= )/, '');
}

/** Insulation from which it does not leak, but is not what it was, ohms. */
const WATCHED_OHMS = 1e6;

/** Faults that take current, so that what is low is pulled down and not cut off. */
const SHORTS: readonly FaultName[] = [
  'short',
  'shortToFrame',
  'shortBetween',
  'shortedTurns',
  'weakInsulation',
];

/** Faults that leave a second way closed. */
const CLOSED: readonly FaultName[] = ['stuckClosed', 'bridged', 'welded'];

/** Faults that bring volts where none belong. */
const FEEDS: readonly FaultName[] = [
  ...CLOSED,
  'stuckOn',
  'leakyOutput',
  'shortBetween',
  'shortToSupply',
  'swapped',
  'crossedPins',
  'wrongTerminal',
];

/** Faults that let a fluid out. */
const LEAKS: readonly FaultName[] = ['leaking', 'sealLeak'];

/** Faults that keep pressure from what lies behind. */
const STARVES: readonly FaultName[] = ['noOutput', 'lowPressure', 'blocked'];

/** What a clamp shows where nothing flows, amperes. */
const NO_AMPS = 0.01;

/** What blows out of an opening, from nothing upwards. */
const FLOWS: readonly string[] = ['none', 'bubbles', 'weak', 'full'];

function shareOf({ goes }: Outcome, ref: string): number {
  return goes.find(({ part }) => part === ref)?.share ?? 0;
}

/** Doubt that sits on insulation which only a tester's volts break down. */
function weakShare({ faults }: Outcome): number {
  return faults.find(({ fault }) => fault === 'weakInsulation')?.share ?? 0;
}

/** Most of the doubt is on a contact between the leads that does not open. */
function isClosed(across: readonly string[], { means: [lead] }: Outcome): boolean {
  return (
    lead !== undefined &&
    lead.part !== null &&
    across.includes(lead.part) &&
    CLOSED.includes(lead.fault as FaultName)
  );
}

/** Beside a test to which only one answer is believed in: it is taken all the same, since another would undo what is believed. */
export const ONLY_ANSWER = 'Anything else fits nothing believed so far: the doubt opens again.';

/** Faults that make a load take more than it should, seen as a larger fall in what feeds it. */
const TAKES_MORE: readonly FaultName[] = [...SHORTS, ...CLOSED, 'jammed'];

/** What an outcome says about the run, in a few words. */
export function thenWords(
  { test, expected, across }: Pick<RankedTest, 'test' | 'expected' | 'across'>,
  outcome: Outcome,
): string {
  const off = test.setup.unplugged?.join(', ');
  if (test.kind === 'code' && off) return unplugWords(off, outcome, expected);
  if (outcome.sound) {
    // The sound circuit reads so, and so does a fault of what is looked at.
    const there = across.find((ref) => shareOf(outcome, ref) > 0.5);
    if (test.kind === 'ohms' && weakShare(outcome) > 0.5)
      return 'As drawn. A few volts do not show weak insulation.';
    return there ? `As drawn, and yet ${there} stays in doubt.` : 'As drawn. Look elsewhere.';
  }
  const { kind } = test;
  const short = SHORTS.includes(outcome.faults[0]?.fault as FaultName);
  const value = typeof outcome.reading === 'number' ? outcome.reading : null;
  const wanted = typeof expected === 'number' ? expected : expected === 'OL' ? Infinity : null;
  if (kind === 'ohms' || kind === 'insulation') {
    if (kind === 'insulation' && outcome.reading === 'OL') return 'Good.';
    if (outcome.reading === 'OL') return 'The way is broken.';
    if (kind === 'insulation')
      return value !== null && value >= WATCHED_OHMS
        ? 'To be watched: damp, or ageing.'
        : 'Leaks to the frame here.';
    if (value !== null && wanted !== null && value < wanted)
      return CLOSED.includes(outcome.faults[0]?.fault as FaultName)
        ? 'Something else is closed beside it.'
        : 'Shorted, or leaking.';
    return 'A bad joint.';
  }
  if (kind === 'volts' && value !== null && wanted !== null) {
    const supply = Math.abs(wanted) > 1;
    if (!supply) {
      if (Math.abs(value) < Math.abs(wanted)) return 'Little or nothing flows here.';
      const fault = outcome.faults[0]?.fault as FaultName;
      if (FEEDS.includes(fault) && Math.abs(value) > 1) return 'Live, and should be dead.';
      if (TAKES_MORE.includes(fault)) return 'More flows here than should.';
      return Math.abs(value) > 1 ? 'The fall is here.' : 'A small fall here.';
    }
    if (Math.abs(value) < 0.5 * Math.abs(wanted) && isClosed(across, outcome))
      return 'It conducts, and should be open.';
    if (short) return 'Pulled down: something takes too much.';
    if (Math.abs(value) < 0.1 * Math.abs(wanted)) return 'Feed lost before here.';
    return Math.abs(value) < Math.abs(wanted) ? 'Starved by a joint.' : 'Too little draws on it.';
  }
  if (kind === 'amps') {
    if (value === null || wanted === null || value <= wanted) return 'Starved, or broken.';
    return wanted < NO_AMPS ? 'Current where none should be.' : 'Draws too much.';
  }
  if (kind === 'diode') return outcome.reading === 'OL' ? 'Does not conduct.' : 'Conducts too well.';
  if (kind === 'pressure' && value !== null && wanted !== null) {
    if (wanted < 0) {
      if (value < wanted) return 'More vacuum than it should have.';
      return value > VACUUM_LOST * wanted
        ? 'No vacuum comes this far.'
        : 'Some vacuum: something leaks, or vents it.';
    }
    if (value < -VACUUM_GONE) return 'Vacuum that should not be here.';
    if (Math.abs(value) >= Math.abs(wanted)) return 'Pressure that should not be here.';
    const fault = outcome.faults[0]?.fault as FaultName;
    if (LEAKS.includes(fault)) return 'Pulled down: something leaks.';
    // A valve that stands wrong shuts off what lies behind it, or lets go what stands before it: that leaves some.
    const lost = STARVES.includes(fault) || Math.abs(value) < 0.1 * Math.abs(wanted);
    return lost ? 'Pressure lost before here.' : 'Pulled down: something takes too much.';
  }
  if (kind === 'moves') {
    if (outcome.reading === 'little') return 'Starts, and stops on its way.';
    return outcome.reading === 'still' ? 'Does not move.' : 'Goes the wrong way.';
  }
  if (kind === 'changes')
    return outcome.reading === 'OL' ? 'Its contact does not follow.' : 'Its points have moved.';
  if (kind === 'hold') return outcome.reading === 'falls' ? 'It falls: something here leaks.' : 'It holds.';
  if (kind === 'flow') {
    const [seen, wants] = [outcome.reading, expected].map((one) => FLOWS.indexOf(String(one)));
    return seen! < wants! ? 'Shut, or starved.' : 'Leaks past, or is let go.';
  }
  if (kind === 'gauge') return 'Its own gauge stands where it should not.';
  if (kind === 'function') return outcome.reading === 'weak' ? 'Works weakly.' : 'Does not work.';
  if (kind === 'click') return outcome.reading === true ? 'Pulls in, and should not.' : 'Does not pull in.';
  if (kind === 'bit') {
    if (test.which === 'command')
      return outcome.reading === '0'
        ? 'Its program does not ask for it.'
        : 'Its program asks for it, and should not.';
    return outcome.reading === '0' ? 'Its card reads nothing back.' : 'Its card reads it back as on.';
  }
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
export function goesToWords({ goes }: Outcome): string {
  return goes
    .map(({ part, share }) => ({ name: part ?? 'none', turns: Math.round(share * ALL_TURNS) }))
    .filter(({ turns }) => turns > 0)
    .slice(0, 2)
    .map(({ name, turns }) => `${name} ${turns}`)
    .join(', ');
}

/** Why this test: "Splits the doubt 12 against 8". */
export function reasonWords({ outcomes, proof, again }: RankedTest, verdict: Verdict): string {
  if (again) {
    const part = verdict.state === 'keepTesting' ? verdict.part : undefined;
    return part ? `Once more, before ${part} is called bad` : 'Once more, before anything else';
  }
  if (proof && verdict.state === 'keepTesting' && verdict.part) {
    if (verdict.because === 'wayNotShown')
      return `Shows ${verdict.parts.join(' and ')}, before ${verdict.part} is called bad`;
    if (verdict.because === 'programOpen') return `Shows whether ${verdict.part} is asked for at all`;
    const { have = 0 } = verdict.proofs ?? {};
    return `${have === 0 ? 'First' : 'Second'} proof before ${verdict.part} is called bad`;
  }
  const most = Math.max(0, ...outcomes.map(({ share }) => share));
  const big = Math.min(ALL_TURNS - 1, Math.max(1, Math.round(most * ALL_TURNS)));
  return `Splits the doubt ${big} against ${ALL_TURNS - big}`;
}
