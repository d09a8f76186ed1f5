import type { Reading, Test } from '@/core/circuit/schema';
import type { MeaningLimit } from '@/core/diagnosis/meaningLimits';
import type { Outcome } from '@/core/diagnosis/outcomes';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import type { Verdict } from '@/core/diagnosis/verdict';
import type { Yardstick } from '@/core/diagnosis/yardsticks';
import { ALL_TURNS } from '@/core/path/turns';
import type { GaugeUnit } from '@/core/units/quantities';
import { siteTime } from '@/core/units/siteTime';
import { figureWords, pointName, quantity, valueWords, type Speaker } from './readings';

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

/** What an answer is held against, and where that comes from. */
export function yardstickWords(
  kind: Test['kind'],
  yardstick: Yardstick,
  timeZone: string,
  unit: GaugeUnit,
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
      return `At least ${quantity('ohms', yardstick.ohms)} (${yardstick.standard}).`;
  }
}

/** Below these a figure is as good as none, in the unit it is kept in. */
const FLOOR: Readonly<Record<Test['kind'], number>> = {
  volts: 0.04,
  amps: 0.02,
  ohms: 0.3,
  insulation: 0.3,
  diode: 0.3,
  hertz: 0.3,
  pressure: 5,
  // Of these no figure is read.
  fuse: 0,
  click: 0,
  function: 0,
  code: 0,
  flow: 0,
  moves: 0,
};

/** "12.3–13.0", "under 24", "over 38 Ω, OL". */
export function bandWords(kind: Test['kind'], { reading, low, high }: Outcome, unit: GaugeUnit): string {
  if (low === undefined || high === undefined) return valueWords(kind, reading, unit);
  const words = (value: number) => figureWords(kind, value, unit);
  if (low === Infinity) return 'OL';
  const floor = FLOOR[kind];
  if (high === Infinity) return `over ${words(low)}, OL`;
  if (low <= floor && low > -floor * 20) {
    return high <= floor && kind !== 'volts'
      ? `under ${words(Math.max(high, floor))}`
      : `under ${words(high)}`;
  }
  const [a, b] = [words(low), words(high)];
  const [unitA, unitB] = [a.split(' ')[1], b.split(' ')[1]];
  if (unitA === unitB) return `${a.split(' ')[0]}–${b}`;
  // Over more than one step of the unit two figures say enough.
  const [roughA, roughB] = [low, high].map((edge) => words(Number(edge.toPrecision(2))));
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
