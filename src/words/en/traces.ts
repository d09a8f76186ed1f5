import type { CoilCondition, TraceKind } from '@/core/trace/conditions';
import type { EntryOf } from '@/core/job/entries';
import { coilFeatures, type CoilFeatures } from '@/core/trace/coilFeatures';
import { traceOfKept } from '@/core/trace/keptTrace';
import type { FuseOnTheWay } from '@/core/sheets/onCircuit/bearing';
import type { TraceAnswer } from '@/core/sheets/trace/trace';
import type { CircuitModel } from '@/core/circuit/model';
import { hertzOf, workedIn } from '@/core/trace/restOf';
import {
  carriesItsOwn,
  pulsesOf,
  showsPeak,
  starterOf,
  startOf,
  startVerdict,
  weighs,
  type FuseUnder,
  type Start,
  type Starter,
  type Weighs,
} from '@/core/trace/inrush';
import type { CoilStanding } from '@/core/trace/judgeCoil';
import { CONDITION_WORDS } from './conditions';
import { quantity } from './readings';

/** A short time in words: "38 ms", "1.2 s". */
export function timeWords(seconds: number): string {
  const ms = 1000 * seconds;
  if (ms < 1) return 'under 1 ms';
  return seconds < 0.9995
    ? `${Number(ms.toPrecision(ms < 10 ? 2 : 3))} ms`
    : `${Number(seconds.toPrecision(3))} s`;
}

/** What a recording has come to so far. */
export function recordingWords({
  lost,
  shown,
  seconds,
  count,
}: {
  lost: string | null;
  shown: string | null;
  seconds: number;
  count: number;
}): string {
  if (lost !== null) return `Waiting: ${lost}.`;
  if (shown === null) return 'Waiting for its first value.';
  return `${shown}; ${count} values in ${seconds.toFixed(1)} s. Switch it on, and off again.`;
}

/** What a trace is watched for. */
export const KIND_WORDS: Readonly<Record<TraceKind, string>> = {
  dip: 'its plunger: on and off again',
  inrush: 'its start: peak and what it settles at',
  pwm: 'pulses',
};

/** What cannot be told apart without a sound trace goes by one name then. */
const TOGETHER: readonly { words: string; of: readonly CoilCondition[] }[] = [
  { words: 'moves, how quickly it should is not known', of: ['sound', 'slow', 'weakSpring'] },
  { words: 'does not move, out or in', of: ['jammedOut', 'jammedIn'] },
];

/** A row of what a trace can be the trace of. */
export interface StandingRow {
  /** The likeliest of its conditions: the one whose curve is laid behind. */
  condition: CoilCondition;
  words: string;
  share: number;
  /** It has a curve. */
  drawn: boolean;
}

/** What a trace can be the trace of, as far as that can be told: with a sound one each condition, without one what is told at all. */
export function standingRows(
  standings: readonly Pick<CoilStanding, 'condition' | 'share' | 'trace'>[],
  compared: boolean,
): StandingRow[] {
  const rows: StandingRow[] = [];
  for (const { condition, share, trace } of standings) {
    const group = compared ? undefined : TOGETHER.find(({ of }) => of.includes(condition));
    const words = group?.words ?? CONDITION_WORDS[condition];
    const known = rows.find((one) => one.words === words);
    if (known) known.share += share;
    else rows.push({ condition, words, share, drawn: trace !== null });
  }
  return rows.sort((a, b) => b.share - a.share);
}

/** What a named condition comes to, and what to do about it. */
const CONDITION_SENTENCES: Readonly<Record<CoilCondition, string>> = {
  sound: 'It moves as it did when it was sound: look past this coil.',
  nothing: 'Nothing flows: the way to it is open, or nothing asks for it.',
  starved: 'It settles at too little: volts are lost on the way. Read the drop under load.',
  shortedTurns: 'It settles at too much and rises too fast: turns are shorted. Read its ohms, plug off.',
  jammedOut:
    'It takes its current and does not move: it stays out. Look for dirt, a bent stem, a load against it.',
  jammedIn: 'It takes its current and does not move: it stays in, as after the last time.',
  slow: 'It moves later than it did: something holds it up on its way. Look for dirt, thick oil, wear.',
  weakSpring: 'It moves at less current than it did and lets go later: its spring is weak or broken.',
  bare: 'Its current is cut off at once: the diode or resistor beside it no longer takes it over, and the contact draws an arc.',
};

/** What a trace's standings come to in one sentence. */
export function judgementWords(
  named: CoilCondition | null,
  standings: readonly Pick<CoilStanding, 'condition' | 'share'>[],
  compared: boolean,
): string {
  if (named) return CONDITION_SENTENCES[named];
  const share = (...of: CoilCondition[]) =>
    standings.filter(({ condition }) => of.includes(condition)).reduce((sum, one) => sum + one.share, 0);
  if (share('jammedOut', 'jammedIn') >= CLEAR)
    return 'It takes its current and does not move; whether it stays out or in this trace does not say.';
  if (!compared && share('sound', 'slow', 'weakSpring') >= CLEAR)
    return 'It moves. Whether as quickly as it should only a trace from when it was sound, or of its twin, can say.';
  return 'Nothing stands clear: take it again with more points, or hold it against a trace from when it was sound.';
}
const CLEAR = 0.8;

/** What stands on the curve, in words, with the moment on its own clock. */
export function markWords(features: CoilFeatures): { at: number; words: string }[] {
  const { onset, dipSeconds, off, releaseSeconds } = features;
  return [
    ...(onset === null ? [] : [{ at: onset, words: 'on' }]),
    ...(onset === null || dipSeconds === null
      ? []
      : [{ at: onset + dipSeconds, words: `moved, ${timeWords(dipSeconds)}` }]),
    ...(off === null ? [] : [{ at: off, words: 'off' }]),
    ...(off === null || releaseSeconds === null
      ? []
      : [{ at: off + releaseSeconds, words: `back, ${timeWords(releaseSeconds)}` }]),
  ];
}

/** A plunger is heard as it strikes home, this near to where its current says that it arrived, seconds. */
const STRIKES_WITHIN = 0.012;

/** What a microphone beside the clamp heard, against what the current shows. */
export function heardLines(
  { onset, dipSeconds }: Pick<CoilFeatures, 'onset' | 'dipSeconds'>,
  heard: readonly number[],
): string[] {
  return heard.slice(0, 3).map((at) => {
    if (onset === null) return `A sharp sound at ${timeWords(at)}.`;
    if (at < onset) return `A sharp sound ${timeWords(onset - at)} before it was switched on.`;
    const after = `A sharp sound ${timeWords(at - onset)} after it was switched on`;
    if (dipSeconds === null) return `${after}; its current shows nothing that moved.`;
    return Math.abs(at - onset - dipSeconds) < STRIKES_WITHIN
      ? `${after}: where its current says that it moved.`
      : `${after}; by its current it moved after ${timeWords(dipSeconds)}. Something else may have clicked.`;
  });
}

/** What a coil's trace shows, line by line, beside an earlier one. */
export function featureLines(
  now: CoilFeatures,
  before: CoilFeatures | null,
  expectedAmps: number | null,
): string[] {
  const { settledAmps, moved, dipSeconds, fallSeconds, releaseSeconds } = now;
  const amps = (value: number) => quantity('amps', value);
  const was = (key: 'dipSeconds' | 'fallSeconds' | 'releaseSeconds') =>
    before === null || before[key] === null ? '' : `, ${timeWords(before[key])} before`;
  return [
    moved === true && dipSeconds !== null
      ? `It moved: the current dips ${timeWords(dipSeconds)} after it was switched on${was('dipSeconds')}.`
      : moved === false
        ? 'No dip on the way up: it did not move.'
        : settledAmps === 0
          ? 'Nothing flows.'
          : 'Too few points on the way up to say whether it moved: take it faster.',
    settledAmps === null
      ? 'It was not watched until it settled.'
      : settledAmps === 0
        ? ''
        : `It settles at ${amps(settledAmps)}${expectedAmps === null ? '' : `; the drawing expects ${amps(expectedAmps)}`}${
            before?.settledAmps ? `; ${amps(before.settledAmps)} before` : ''
          }.`,
    fallSeconds === null
      ? ''
      : `Switched off, a third is left after ${timeWords(fallSeconds)}${was('fallSeconds')}.`,
    releaseSeconds === null ? '' : `It goes back after ${timeWords(releaseSeconds)}${was('releaseSeconds')}.`,
  ].filter((line) => line !== '');
}

/** A kept trace in one breath, as a report has it. */
export function keptTraceWords(
  model: CircuitModel,
  { part, kind, amps, named }: Pick<EntryOf<'trace'>['body'], 'part' | 'kind' | 'amps' | 'named'>,
): string {
  const trace = traceOfKept(amps);
  if (kind === 'inrush') {
    const of = starterOf(model, part);
    const drawnAmps = workedIn(model, part)?.amps ?? null;
    return startWords({ start: startOf(trace, hertzOf(model, part)), before: null, drawnAmps, of });
  }
  if (kind === 'pwm') return pulseWords(pulsesOf(trace));
  const { settledAmps, moved, dipSeconds } = coilFeatures(trace);
  return [
    moved === true && dipSeconds !== null ? `moved after ${timeWords(dipSeconds)}` : '',
    moved === false ? 'did not move' : '',
    settledAmps === null ? '' : `settles at ${quantity('amps', settledAmps)}`,
    named ? CONDITION_WORDS[named] : '',
  ]
    .filter((one) => one !== '')
    .join(', ');
}

const RAN_WORDS: Readonly<Record<Starter, string>> = {
  motor: 'it ran up',
  coil: 'it pulled in',
  other: 'it came to its warmth',
};

/** A start with what it is held against. */
export interface StartHeld {
  start: Start;
  /** A sound one of before. */
  before: TraceAnswer | null;
  /** What it should carry once it works, amperes. */
  drawnAmps: number | null;
  of: Starter;
}

/** What a start comes to: "61 A falling to 11 A in 0.6 s: it ran up." */
export function startWords({ start, before, drawnAmps, of }: StartHeld): string {
  const { peak, settled, settleSeconds } = start.answer;
  const amps = (value: number | null) => quantity('amps', value ?? 0);
  const fell = `${showsPeak(start, of) ? '' : 'At least '}${amps(peak)} falling to ${amps(settled)} in ${timeWords(settleSeconds ?? 0)}`;
  const verdict = startVerdict(start, before, drawnAmps, of);
  switch (verdict) {
    case 'ran':
      return `${fell}: ${RAN_WORDS[of]}.`;
    case 'locked':
      if (of === 'other') return `It stays at ${amps(settled)}, as what only warms does.`;
      return of === 'coil'
        ? `It stays at ${amps(settled)}: its armature does not close. Off with it, it overheats.`
        : `It stays at ${amps(settled)} and does not run up: it stands, or what it drives holds it. Off with it, it overheats.`;
    case 'unseen':
      return `It carries ${amps(settled)}${carriesItsOwn(settled ?? 0, before, drawnAmps) ? `, as one does that ${WORKS_WORDS[of]}` : ''}. How it started was not seen: ${unseenWords(start)}.`;
    case 'nothing':
      return 'Nothing flows: the way to it is open, or nothing asks for it.';
    case null:
      return settled === null
        ? 'It was not watched until it settled: take it longer.'
        : `${fell}: neither clearly ${of === 'coil' ? 'pulled in' : 'run up'} nor clearly standing.`;
  }
}

const WORKS_WORDS: Readonly<Record<Starter, string>> = {
  motor: 'runs',
  coil: 'has pulled in',
  other: 'is warm',
};

function unseenWords({ apartSeconds }: Start): string {
  return apartSeconds === null
    ? 'it was on already as the record began. Record first, then switch it on'
    : `values lie ${timeWords(apartSeconds)} apart there. Take them faster, or with a clamp that keeps the peak`;
}

const WEIGHS_WORDS: Readonly<Record<Weighs, string>> = {
  slips:
    'It runs with far less than it should carry: a belt that slips, a broken drive, or nothing left to move.',
  drags: 'It runs with far more than it should carry: what it drives drags, or its own bearings do.',
};

/** What a start is beside an earlier one, and what the drawing expects. */
export function startLines(held: StartHeld): string[] {
  const { start, before, drawnAmps, of } = held;
  const { answer: now, rms } = start;
  const amps = (value: number) => quantity('amps', value);
  const load = of === 'motor' ? weighs(now, before, drawnAmps) : null;
  const isSeen = showsPeak(start, of);
  return [
    load === null ? '' : WEIGHS_WORDS[load],
    now.verdict === 'ran' && !isSeen ? `Its peak may have been higher: ${peakUnseenWords(start)}.` : '',
    before?.peak && isSeen ? `Peak ${amps(now.peak ?? 0)}, ${amps(before.peak)} before.` : '',
    before?.settled && now.settled ? `Settled ${amps(now.settled)}, ${amps(before.settled)} before.` : '',
    now.settled && drawnAmps !== null ? `The drawing expects ${amps(drawnAmps)} once it has settled.` : '',
    rms ? 'Alternating current: each value is the effective one of its period.' : '',
  ].filter((line) => line !== '');
}

function peakUnseenWords({ apartSeconds }: Start): string {
  return apartSeconds === null
    ? 'the record begins with it'
    : `values lie ${timeWords(apartSeconds)} apart there`;
}

const FUSE_WORDS: Readonly<Record<FuseUnder, string>> = {
  bears: 'bears this start',
  mayOpen: 'may open under this start',
  opens: 'opens under this start',
};

/** What a fuse on the way makes of a start. */
export function fuseUnderWords({ part, rated, besides }: FuseOnTheWay, under: FuseUnder): string {
  const more = besides > 0.05 * rated ? `, with ${quantity('amps', besides)} that it carries besides` : '';
  return `${part}, ${quantity('amps', rated)}, ${FUSE_WORDS[under]}${more} (bounds of ISO 8820-3, if it is a blade fuse).`;
}

/** What a pulsed current comes to. */
export function pulseWords({ hz, duty, mean, ripple }: TraceAnswer): string {
  if (hz === null) return 'No pulses that can be told: at least three of them, five points in each.';
  return `${Number(hz.toPrecision(3))} Hz, rising for ${Math.round(100 * (duty ?? 0))} % of the time: ${quantity('amps', mean ?? 0)} in the mean, ripple ${quantity('amps', ripple ?? 0)}.`;
}
