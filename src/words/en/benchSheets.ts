import { significant } from '@/core/units/significant';
import type { FindingCode, SheetName } from '@/core/sheets/sheets';
import type { Medium, Need } from '@/core/sheets/needs/needs';
import type { Finding, Next } from '@/core/sheets/sheet';
import { quantity } from './readings';

/** What each sheet is called, and what it is for. */
export const BENCH_TITLE: Readonly<Record<SheetName, { title: string; what: string }>> = {
  coil: { title: 'Coil', what: 'Ohms against maker, twin, past or fleet; its current cold and hot' },
  windings: { title: 'Two windings, three wires', what: 'Which wire is common, pull-in, hold-in' },
  insulation: { title: 'Insulation', what: 'Each conductor to the frame and to each other' },
  contacts: { title: 'Contact bank', what: 'Contactors beside each other: coil, contact, drop under load' },
  terminals: {
    title: 'Relay and switch terminals',
    what: 'Coil, commons and contacts from readings between them',
  },
  outputs: { title: 'Output matrix', what: 'Each output commanded, all of them measured' },
  survey: { title: 'Plug survey', what: 'What each pin is; a sensor swept' },
  diode: { title: 'Diode', what: 'Both ways, also with the coil across it' },
  interlocks: { title: 'Interlock chain', what: 'Volts along the chain: the first that loses them' },
  spareContact: { title: 'Contact of a spare', what: 'NO or NC where something presses it already' },
  drop: { title: 'Voltage drop', what: 'Each segment beside its copper' },
  bubbles: { title: 'Bubble test', what: 'A piston’s seal at its end stop' },
  actuation: { title: 'Pressure switch', what: 'Where it makes and breaks, cycle by cycle' },
  saturation: { title: 'Saturation', what: 'Refrigerant, from pressure or temperature' },
  cutIn: { title: 'Cut-in and cut-out', what: 'A control run over a curve' },
  functions: { title: 'Function matrix', what: 'What works clears what it uses' },
  wire: { title: 'Wire', what: 'Its section for a current, and where it touches the frame' },
  needs: { title: 'Three needs of a valve', what: 'Electricity, air, cleanliness: which of them it lacks' },
  hold: { title: 'Holds or falls', what: 'Vacuum on a hand pump, air in a vessel, a system left standing' },
  evacuation: { title: 'Evacuated system', what: 'Its rise with the pump shut off: tight, wet or leaking' },
  planner: { title: 'Control planned', what: 'Thresholds out of pressures; a day and a week of it' },
  stroke: { title: 'Stroke time', what: 'A cylinder’s seconds against its bore, load and throttles' },
  connector: { title: 'Plug and lead', what: 'Each core through, no two of them one, its diode both ways' },
  trace: { title: 'Trace', what: 'Inrush, a plunger’s dip, pulses' },
};

const at = (detail: unknown) => String(detail);
const list = (detail: unknown) => (Array.isArray(detail) ? detail.join(', ') : String(detail));
const metres = (detail: unknown) => `${significant(Number(detail), 2)} m`;
const percent = (detail: unknown) => `${Math.round(100 * Number(detail))} %`;
const num = (detail: unknown, what: Parameters<typeof quantity>[0]) =>
  typeof detail === 'number' ? quantity(what, detail) : String(detail);

const WORDS: Readonly<Record<FindingCode, (found: Finding) => string>> = {
  leadsNotKnown: ({ most }) =>
    `The leads are still in the reading: up to ${num(most, 'ohms')}. Hold them together and type that.`,
  temperatureNotKnown: ({ from, to, kPaPerK }) =>
    kPaPerK !== undefined
      ? `No temperatures were typed: each degree warmer adds ${at(significant(Number(kPaPerK), 2))} kPa.`
      : from === undefined
        ? 'No temperature was typed: insulation halves with every 10 °C.'
        : `No temperature was typed: taken as ${at(from)} to ${at(to)} °C.`,
  toleranceUsual: ({ tolerance }) =>
    `No tolerance was typed: ± ${Math.round(Number(tolerance) * 100)} % is taken, the usual one.`,
  twinsDisagree: () => 'Its neighbours do not agree with each other: they say nothing of what is usual.',
  settled: ({ to }) => `The display ran and settled at ${num(to, 'ohms')}.`,
  tooNearToCall: ({ least, most }) =>
    `Too near to the limits (${num(least, 'ohms')} to ${num(most, 'ohms')}) to pass or fail.`,
  inductanceNotKnown: () =>
    'On alternating volts its current does not follow from its ohms: its inductance is not known.',
  jammedArmature: ({ amps }) =>
    `Good ohms and ${num(amps, 'amps')}: the armature does not close. It burns the coil; switch it off.`,
  shortedTurns: ({ amps }) => `Low ohms and ${num(amps, 'amps')}: shorted turns.`,
  drawsMore: ({ amps }) => `It draws more than its ohms allow: ${num(amps, 'amps')}.`,
  drawsLess: ({ amps }) =>
    `It draws less than its ohms would: ${num(amps, 'amps')}. Look for a joint in the feed or the return.`,
  unusual: ({ byTolerances }) => {
    const by = Number(byTolerances);
    return `${Math.abs(by).toFixed(1)} times its tolerance ${by < 0 ? 'under' : 'over'} the middle.`;
  },
  hotterThanClass: ({ celsius, most, insulationClass }) =>
    `It ran at ${Math.round(Number(celsius))} °C: class ${at(insulationClass)} windings bear ${at(most)} °C.`,
  pullsInLate: ({ volts, most }) =>
    `It pulls in at ${num(volts, 'volts')} only; by ${num(most, 'volts')} it should have. Look for what drags: dirt, a bent frame, a weak coil.`,
  pullsInLateHot: ({ volts, most }) =>
    `Cold it pulls in in time; 80 °C warmer it wants ${num(volts, 'volts')}, and ${num(most, 'volts')} is all it may.`,
  dropsOutEarly: ({ volts, most }) =>
    `It lets go at ${num(volts, 'volts')}; up to ${num(most, 'volts')} it may. A dip of the supply drops it.`,
  staysIn: ({ volts, least }) =>
    `It lets go at ${num(volts, 'volts')} only; by ${num(least, 'volts')} it should have. It may stay in when it is switched off.`,
  dutyOver: ({ share, rated }) =>
    `On for ${percent(share)} of its cycle; ${percent(rated)} is what its label allows. Let it cool.`,
  diodeNotKnown: () =>
    'Pulsed without a diode its current breaks off each time: type the diode’s volts, or nothing follows.',
  noSuchPulses: () => 'No share of time on shows these volts: look at the supply, the range and the leads.',
  onTimeWithoutCycle: () => 'On-time says nothing of heat without its cycle.',
  doNotAdd: ({ sum, reads }) =>
    `Two of them make ${num(sum, 'ohms')}, the third reads ${num(reads, 'ohms')}: they do not add up. Read them again.`,
  nothingAt: ({ wire }) => `Nothing leads from ${at(wire)}: its winding, or the common, is broken.`,
  alike: () => 'Both windings read alike: ohms do not tell pull-in from hold-in.',
  allOpen: () => 'Nothing leads anywhere.',
  wayAround: ({ from, to }) =>
    `${at(from)} to ${at(to)} cannot be open: there is a way over the third wire. Read it again.`,
  electronicConnected: ({ parts }) =>
    `Still connected and electronic: ${list(parts)}. Unplug it first; test volts destroy it.`,
  overClass: ({ testVolts, most }) =>
    `${at(testVolts)} V is more than this circuit bears: ${at(most)} V at most.`,
  underClass: ({ testVolts, wanted }) =>
    `${at(testVolts)} V passes nothing here: this class is tested with ${at(wanted)} V.`,
  classNotKnown: () => 'The volts of the circuit are not known: nothing passes without them.',
  testVoltsNotKnown: () => 'The test volts are not known: nothing passes without them.',
  stillCharging: ({ from, to }) =>
    `${at(from)} to ${at(to)} was read while it charged. Wait a minute and read again.`,
  falls: ({ from, to }) => `${at(from)} to ${at(to)} falls while it is watched: damp.`,
  belowPast: ({ from, to }) => `${at(from)} to ${at(to)} is much below what it was.`,
  schoolUsual: () => 'Judged in millivolts, as heavy direct-current contacts are.',
  clickAgainstCoil: ({ name }) =>
    `${at(name)} clicks though its coil reads open or shorted: one of the two is wrong.`,
  parallelWay: ({ name, ohms }) =>
    `${at(name)} reads ${num(ohms, 'ohms')} open: something lies across it. Lift one side.`,
  dropWithoutAmps: ({ name }) => `${at(name)}: a drop says nothing without its current.`,
  ratedNotKnown: ({ name }) =>
    `${name === undefined ? 'Its rating' : `The rating of ${at(name)}`} is not known: good here is not good at more.`,
  lineVoltsNotKnown: () => 'Percent of what? Type the line volts.',
  littleCurrent: ({ name, amps }) =>
    `${at(name)} carried ${num(amps, 'amps')} only: too little to say what it does at its rating.`,
  directionsDisagree: () => 'No pairing fits what works and what does not. Look at both again.',
  straightOrWelded: ({ name, from, to }) =>
    `${at(name)}, ${at(from)} to ${at(to)} is closed both ways: a link that is not switched, or a contact that has welded. Look inside.`,
  unsteady: ({ name, least, most, count }) =>
    `${at(name)} makes differently each time: ${num(least, 'volts')} to ${num(most, 'volts')} in ${at(count)} makes. It is judged by the worst.`,
  noPinOut: () => 'No pin-out reads like this: a contact is bad, or a reading is wrong.',
  manyPinOuts: ({ atLeast }) => `${at(atLeast)} pin-outs and more fit still.`,
  claimDisagrees: () => 'The symbol says otherwise.',
  readTwoWays: ({ pair }) => `${list(pair)} was read both closed and open in one state. Read it again.`,
  unused: ({ terminals }) => `Not connected: ${list(terminals)}.`,
  supplyNotKnown: () => 'The supply volts are not known.',
  fitsNothing: () => 'What was read fits no single cause.',
  loopBridged: () => 'The sensor loop is bridged: it does not show. Take the bridge out.',
  heldDown: ({ output }) =>
    `With its load off ${at(output)} gives what it should: what hangs on it holds it down. Look at its wire and its load.`,
  heldUp: ({ output }) =>
    `With its load off ${at(output)} pulls as it should: what hangs on it holds it up. Look at its wire and its load.`,
  fieldDead: ({ output }) =>
    `With ${at(output)} itself off nothing arrives on its wire: look at its wire, its load and what feeds that, not at the output.`,
  fieldLive: ({ output }) =>
    `With ${at(output)} itself off its wire is live: something else feeds it. Look for a short to a feed in the field, not at the output.`,
  loadMayHold: ({ outputs }) =>
    `A short behind ${list(outputs) || 'it'} would read the same: take the load off, and measure again.`,
  referenceNotKnown: ({ takenAs }) => `The reference volts are not known: ${at(takenAs)} V are taken.`,
  fewPoints: ({ wanted }) => `Too few places: at least ${at(wanted)}.`,
  at: ({ position }) => `At position ${at(position)}.`,
  coilAcross: ({ ohms }) => `A coil of ${num(ohms, 'ohms')} lies across it and takes the meter’s current.`,
  coilOpen: () => 'The coil across it does not conduct: it is open.',
  orBothWays: () => 'Open both ways; so reads a suppressor that blocks both ways, too.',
  overRangeInferred: ({ shown }) => `${at(shown)} is taken for over range.`,
  resistorAcross: ({ ohms }) => `About ${num(ohms, 'ohms')} lie across it. Lift one side.`,
  betweenKinds: () => 'Between Schottky and silicon.',
  noSupply: () => 'No supply where the chain begins.',
  lowSupply: ({ volts, wanted }) =>
    `The supply is low: ${num(volts, 'volts')} where ${num(wanted, 'volts')} should stand. Look ahead of it too.`,
  resistive: ({ name, volts }) => `${at(name)} keeps ${num(volts, 'volts')}: a bad contact.`,
  bridged: ({ name }) =>
    `${at(name)} should be open and passes its volts: bridged or welded. A safety defect; the machine stays.`,
  rightlyOpen: ({ name }) => `${at(name)} is open as it should be here.`,
  notKnownPressed: ({ name }) => `Whether ${at(name)} should be closed here is not known.`,
  heldInService: () => 'Something presses it in service: a free one in the hand shows the other state.',
  noCurrent: () => 'Nothing flows: there is nothing to lose.',
  lessThanCopper: ({ name }) =>
    `${at(name)} loses less than its copper must: current, length or section is wrong.`,
  overBudget: ({ volts, budget }) => `${num(volts, 'volts')} lost, ${num(budget, 'volts')} allowed.`,
  copperOverBudget: () => 'Its copper alone is over the budget: no joint mends that, thicker wire does.',
  moreThanOne: () => 'Nothing is left: more than one fault, or the table is wrong.',
  nothingFails: () => 'Nothing fails in what was tried.',
  nothingTried: () => 'Nothing is tried yet.',
  portOpen: () => 'The unused port is open: what bubbles is not what passes the piston.',
  bubbleTakenAs3mm: () => 'A bubble is taken as 3 mm.',
  movingIsNormal: () => 'Bubbles while it moves are normal.',
  endNotKnown: () => 'At which end it stood is not known.',
  fewCycles: ({ wanted }) => `Too few cycles: at least ${at(wanted)}.`,
  restDisagrees: () => 'What it shows at rest and where it makes do not go together.',
  spread: ({ kPa }) => `Its points scatter by ${at(Math.round(Number(kPa)))} kPa.`,
  offRated: ({ kPa }) => `${at(Math.round(Number(kPa)))} kPa off what is written on it.`,
  refrigerantNotKnown: ({ refrigerant }) => `${at(refrigerant)} is not in the table.`,
  frictionUsual: ({ share }) =>
    `Friction of the cylinder taken as ${percent(share)} of its force, a usual one.`,
  deadUsual: ({ share }) =>
    `Dead space and line of each end are taken as ${percent(share)} of the stroke’s volume: type them where a line is long.`,
  exhaustUsual: () => 'What lets a chamber go is taken as wide as what feeds it: type its own.',
  tooHeavyOut: () => 'The load is more than it pushes: it does not go out.',
  tooHeavyIn: () => 'The load is more than it pulls: it does not come in.',
  speedAlone: () => 'Only one way was timed.',
  fasterThanComputed: () =>
    'Faster than these figures allow: a throttle is wider, a load lighter, or a seal passes.',
  trappedAir: ({ way, cm3 }) =>
    `It starts late on its way ${at(way)}: as if about ${at(significant(Number(cm3), 2))} cm³ of air were trapped in it. Bleed it, let it run to both ends, and time it again.`,
  throughDiode: ({ from, to }) => `${at(from)} to ${at(to)} reads through the diode: its own test decides.`,
  diodeHidden: () => 'What lies across the diode hides it: lift one end.',
  outsideTable: ({ fromC, toC }) =>
    `Outside the maker’s table, which runs from ${at(fromC)} to ${at(toC)} °C.`,
  tableTooShort: ({ least }) => `A table of fewer than ${at(least)} points draws no curve.`,
  liquidInVapour: () =>
    'The vapour side is colder than its dew point: liquid comes along, or the gauge, the clamp or the refrigerant is another.',
  vapourInLiquid: () =>
    'The liquid side is warmer than its bubble point: gas comes along, or the gauge, the clamp or the refrigerant is another.',
  outsideFit: ({ fromC, toC }) => `Outside ${at(fromC)} to ${at(toC)} °C, where the figures hold.`,
  altitudeNotKnown: () => 'The altitude is not known: sea level is taken.',
  notYetChecked: ({ refrigerant }) => `${at(refrigerant)}: to be checked against the maker’s table.`,
  licensed: () => 'Only licensed people open a refrigerant circuit.',
  swapped: () => 'Cut-in and cut-out stand the wrong way round.',
  deadBandTooNarrow: () => 'It goes on and off too fast: the dead band is too narrow.',
  neverOn: () => 'It never comes on.',
  neverOff: () => 'It never goes off.',
  startNotKnown: () => 'It begins between the two: whether it was on is not known.',
  tooCoarse: () => 'Too few points to tell.',
  notSettled: () => 'It has not settled within the trace.',
  tooShort: () => 'Too short to tell.',
  returnTakenAsWire: () => 'How the current comes home was not said: a wire of the same section is taken.',
  noSizeSuffices: ({ mm2 }) => `Not even ${at(mm2)} mm² keeps to it: less way, more volts, or two wires.`,
  notShorted: () => 'Nothing leads to the frame from either end.',
  endsDoNotFit: () =>
    'The two ends do not fit one touch in this wire: another way home is connected, the wire is broken, or its length or section is another.',
  shortOutweighs: ({ least, most }) =>
    `It touches somewhere from ${metres(least)} to ${metres(most)}: these ohms say no more. Use a meter that shows milliohms, or cut it in halves.`,
  noPulses: () => 'No pulses in it.',
  sideNotKnown: () =>
    'This blend boils and condenses at different temperatures: say whether the sensor is on liquid (bubble) or on vapour (dew).',
  coldestHourUsual: ({ hour }) => `The coldest hour is not known: ${at(hour)} o’clock is taken.`,
  responseNotKnown: () =>
    'What the sensor reads more once the output is on is not known: without it nothing is said of a sensor that feels it.',
  fallsInFlow: ({ share }) =>
    `Its supply falls by ${percent(share)} while it works: something throttles it before the valve. Filter, small tube, a valve half shut.`,
  wetAir: () => 'Water comes with the air: drain the filter bowl before a new valve goes in, or it dies too.',
  neededNotKnown: () =>
    'The least pressure that it shifts with is not known: it stands in the maker’s sheet.',
  coilRatingNotKnown: () =>
    'The volts on its coil’s label are not known: without them no volts say anything.',
  midwayForAir: () =>
    'Air pushes at its exhaust, and it lacks air: the spool stands mid-way for want of pilot air. That is no fault of the valve.',
  standsMidway: () =>
    'Air pushes at its exhaust though it has its air: the spool stands mid-way, dirty or worn.',
  blowsAtRest: () =>
    'It blows at rest as it does on command, and nothing feeds its coil then: the spool does not go, dirty or worn.',
  bothCoils: () => 'Both of its coils are fed at once: it stays where it is. Look for what feeds the other.',
  passesBeyond: () =>
    'With its outlets plugged nothing pushes: the air passes the piston behind it, not the valve.',
  overrideAlone: () =>
    'Pushed by hand it moves, its coil clicks, and by command it does not: the way of the pilot air in it is shut.',
  clickWithoutVolts: () => 'It clicks, and no volts are at its coil: one of the two was read wrong.',
  volumeNotKnown: () => 'Its volume is not known: no litres a minute without it.',
  atmosphereUsual: ({ kPa }) => `The air around it is taken as ${at(kPa)} kPa, as at the sea.`,
  gaugeNotKnown: () => 'The smallest step of the gauge is not known: what it cannot show is no loss.',
  withinGauge: ({ kPa }) =>
    `The loss is within what this gauge can show: ${at(significant(Number(kPa), 3))} kPa.`,
  wrongSide: ({ of }) =>
    of === 'vacuum'
      ? 'A vacuum stands below nothing: type it with a minus.'
      : 'A pressure stands above nothing.',
  fewReadings: ({ wanted }) => `Too few readings: at least ${at(wanted)}.`,
  notLongEnough: ({ seconds, wanted }) =>
    `Below the mark so far, for ${at(Math.round(Number(seconds)))} s; ${at(wanted)} s are wanted.`,
  passUsual: ({ pa }) => `The maker’s mark is not known: ${at(pa)} Pa are taken, the shop’s.`,
  notDeepEnough: ({ pa, pass }) =>
    `It began at ${at(significant(Number(pa), 3))} Pa, above the mark of ${at(pass)} Pa: pump on first.`,
};

/** One finding, in a sentence. */
export function findingWords(found: Finding): string {
  const say = WORDS[found.code as FindingCode] as ((one: Finding) => string) | undefined;
  return say ? say(found) : found.code;
}

/** What would settle most, in a line. */
export function nextWords(next: Next | null, labelOf: (field: string) => string): string | null {
  if (next === null) return null;
  if (typeof next === 'string') return `Next: try ${next}.`;
  if ('ask' in next) return `Next: ${labelOf(next.ask)}.`;
  if ('after' in next) return `Next: volts after ${next.after}.`;
  if ('commanded' in next)
    return `Next: ${next.commanded} commanded, ${next.measured} measured${next.how === 'lowImpedance' ? ' with low impedance' : ''}.`;
  return `Next: ${next.from} to ${next.to}${next.state ? `, ${next.state === 'rest' ? 'at rest' : 'operated'}` : ''}.`;
}

const VALUES: Readonly<Record<string, string>> = {
  good: 'good',
  bad: 'bad',
  low: 'too low: turns shorted',
  high: 'too high',
  open: 'open',
  wandering: 'comes and goes',
  unknown: 'not known yet',
  short: 'shorted',
  shorted: 'shorted',
  reversed: 'the wrong way round',
  hidden: 'hidden behind what lies across it',
  watch: 'to be watched',
  worn: 'worn',
  welded: 'welded',
  coil: 'coil open or shorted',
  needsLoad: 'wants its drop under load',
  mechanical: 'stuck, its coil is good',
  weak: 'weak',
  leaking: 'leaks',
  invalid: 'no test: a port is open',
  sticky: 'sticks',
  intermittent: 'comes and goes',
  drifted: 'off its set point',
  dead: 'dead',
  ran: 'ran up',
  locked: 'stands still under current',
  nothing: 'nothing flows',
  deadSpot: 'dead spot',
  noise: 'noisy',
  stuck: 'does not follow',
  outOfRange: 'out of its range',
};

/** A verdict in words; what is none stays as it is. */
export function benchVerdictWords(verdict: unknown): string {
  if (verdict === null || verdict === undefined) return 'not known yet';
  return VALUES[String(verdict)] ?? String(verdict);
}

const NEEDS: Readonly<Record<Exclude<Need, 'air'>, string>> = {
  electricity: 'electricity',
  coil: 'a coil that pulls',
  valve: 'a free and clean spool',
  beyond: 'a free way on: exhaust, lines, what it moves',
};

const MEDIA: Readonly<Record<Medium, string>> = { air: 'air', oil: 'oil pressure', vacuum: 'vacuum' };

/** What a valve needs, as it is said: "a coil that pulls". */
export function needWords(need: Need, medium: Medium): string {
  return need === 'air' ? MEDIA[medium] : NEEDS[need];
}
