import { verdictWhy } from './verdict';
import { capital } from './capital';
import { listWords } from './listWords';
import { significant } from '@/core/units/significant';
import type { Part, Reading } from '@/core/circuit/schema';
import { seenWork } from '@/core/job/seenWork';
import type { ClearFirst } from '@/core/diagnosis/clearBefore';
import { kindOf } from '@/core/kinds/part';
import type { PartKind } from '@/core/kinds/part/module';
import { SAME_PART_SHARE, type FaultName } from '@/core/diagnosis/faultTypes';
import type { RankedTest } from '@/core/diagnosis/rankTests';
import type { Proofs } from '@/core/diagnosis/proofs';
import type { Suspect } from '@/core/diagnosis/suspects';
import type { Verdict } from '@/core/diagnosis/verdict';
import type { Standing } from '@/core/path/standing';
import { KIND_NAMES } from './drawing';
import { partWords, quantity, readingWords, testPlace, type Speaker } from './readings';

/** What a part does that has a fault; one without words is a type error. */
const FAULT_WORDS: Readonly<Record<FaultName, string>> = {
  noOutput: 'gives nothing',
  noCommand: 'not asked for by its program',
  lowVoltage: 'gives too little',
  open: 'open',
  highResistance: 'bad joint',
  shortToFrame: 'shorted to frame',
  weakInsulation: 'breaks down to frame',
  shortedTurns: 'shorted turns',
  stuckOpen: 'does not close',
  stuckClosed: 'does not open',
  bridged: 'bridged',
  welded: 'welded shut',
  short: 'shorted',
  reversed: 'wrong way round',
  stuckOn: 'stays on',
  stuck: 'stuck',
  shortBetween: 'shorted to a neighbour',
  shortToSupply: 'touches a live feed',
  leakyOutput: 'lets current through while off',
  swapped: 'plug exchanged',
  crossedPins: 'pins exchanged',
  wrongTerminal: 'wires on the wrong contact',
  blockDead: 'its whole block of outputs gives nothing',
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
/** The same of faults between two, with the other part. */
const BETWEEN_WORDS: Partial<Record<FaultName, (other: string) => string>> = {
  shortBetween: (other) => `shorted to ${other}`,
  shortToSupply: () => 'touches a live feed',
  swapped: (other) => `plug exchanged with ${other}`,
  crossedPins: (other) => `pin exchanged with ${other}`,
  blockDead: (other) => `gives nothing, nor does ${other}: the block of outputs is dead`,
};
/** Where a kind of part has more than one thing in it, which of them. */
const BAD_CONTACT = { highResistance: 'contact makes badly' } as const;
const FAULT_WORDS_OF: Partial<Record<PartKind, Partial<Record<FaultName, string>>>> = {
  relay: {
    ...BAD_CONTACT,
    open: 'coil open',
    shortedTurns: 'shorted turns in its coil',
    jammed: 'armature jammed',
  },
  coil: { jammed: 'plunger jammed' },
  motor: { jammed: 'seized, it does not turn' },
  relief: { lowPressure: 'opens too early', leaking: 'does not shut', stuckClosed: 'does not open' },
  switch: BAD_CONTACT,
  pressureSwitch: BAD_CONTACT,
  timer: BAD_CONTACT,
};

function faultOf({ model }: Speaker, ref: string, fault: FaultName): string {
  const at = model.compiled.partIndex.get(ref);
  const kind = at === undefined ? undefined : model.compiled.parts[at]!.part.kind;
  const part = at === undefined ? undefined : model.compiled.parts[at]!.part;
  if (fault === 'lowPressure' && part && 'kPa' in part && part.kPa < 0) return 'too little vacuum';
  return kind ? faultOfKind(kind, fault) : FAULT_WORDS[fault];
}

/** A fault as it is called in a kind of part: "coil open" of a relay. */
export function faultOfKind(kind: PartKind, fault: FaultName): string {
  return FAULT_WORDS_OF[kind]?.[fault] ?? FAULT_WORDS[fault];
}

/** A fault, whatever the part: "bad joint". */
export function plainFaultWords(fault: FaultName): string {
  return FAULT_WORDS[fault];
}

/** A fault of a kind of part: "plug pin, bad joint". */
export function faultClassWords(kind: PartKind, fault: FaultName): string {
  const words = faultOfKind(kind, fault);
  return words.startsWith(`${KIND_NAMES[kind]} `) ? words : `${KIND_NAMES[kind]}, ${words}`;
}

/** What a part is that was proved to be the cause: an output that nobody asks for is not bad itself. */
export function provedWords(fault: FaultName): string {
  return fault === 'noCommand' ? 'not asked for' : 'proved bad';
}

const CLEAR_WORDS: Readonly<Record<ClearFirst['reason'], string>> = {
  shortBehind:
    'something may have taken it down; with it out, read its load side to the frame in every position before a new one goes in',
  openSuppressor: 'open, it lets the new contact burn as well: test it both ways',
  suppressionDiode: 'shorted or the wrong way round, it would kill the new part',
  overVoltage:
    'too many volts would burn the new one: read them at their highest, a battery while it is charged',
  overLineVoltage:
    'too many volts would burn the new one: read them at their highest, when little else is on',
  jammedArmature:
    'find what holds it, ice, dirt, a bent stem or the valve it moves: a new one would stand at its inrush current and burn',
  jammedPlunger:
    'find what holds it, rust, dirt, a bent stem or what it moves: a new one would not move either',
  seizedRotor: 'find what holds it, its bearings or what it drives: a new one would stand and burn',
  jammedSpool: 'jammed, it would leave an alternating coil at its inrush current',
  missingAir: 'without pilot pressure a good spool stands mid-way',
  foulAir: 'water, dirt or dry air does the same to the next one: drain it, look at its bowl',
  foulOil: 'dirt in the oil does the same to the next one: look at the filter and at the oil',
  foulVacuum: 'dust drawn in does the same to the next one: look at the filter and the open port',
  foulRefrigerant: 'moisture or dirt does the same to the next one: a new drier, and evacuate it dry',
  overload: 'read what it draws before the new part carries it',
};

/** Why another part comes first: "V8: shorted or …". */
export function clearWords({ part, reason }: ClearFirst): string {
  return `${part}: ${CLEAR_WORDS[reason]}.`;
}

/** Faults of one part said beside each other. */
const MOST_FAULTS = 3;
/** Limits this far apart are said both: one figure between them would be made up. */
const ONE_FIGURE = 2;
/** Two figures of less than this many ohms are none with two decimals. */
const SAID_IN_OHMS = 0.1;

function sizeWords(ohms: number, range: Suspect['severityRange']): string {
  const words = (value: number, digits: number) =>
    value < SAID_IN_OHMS
      ? `${significant(1000 * value, digits)} mΩ`
      : quantity('ohms', significant(value, digits)).replace(/\.0+(?= )/, '');
  return range && range[1] > ONE_FIGURE * range[0]
    ? `${words(range[0], 1)} to ${words(range[1], 1)}`
    : `about ${words(ohms, 2)}`;
}

/** Faults that hands have made. */
const BY_HAND: readonly FaultName[] = ['swapped', 'crossedPins', 'wrongTerminal', 'reversed'];

/** What to look for before a new part goes in, where the drawing names no cause. */
export function causeWords({ model }: Speaker, ref: string, fault?: FaultName): string {
  if (fault && BY_HAND.includes(fault))
    return 'Whoever worked here before: look for what else went back wrong, and mark the plugs.';
  if (fault === 'bridged')
    return 'A jumper that somebody left, or water and dirt across the terminals: take it away, and find out why it was put there.';
  if (fault === 'noCommand')
    return 'What its program waits for: an input, a permission, a time, an override that somebody left. Nothing is to be renewed for it.';
  const at = model.compiled.partIndex.get(ref);
  const kind = at === undefined ? undefined : model.compiled.parts[at]!.part.kind;
  if (kind === 'fuse')
    return 'What took it: measure from its load side to the frame, with the fuse out and every position tried, before another goes in.';
  if (kind === 'breaker')
    return 'What tripped it: measure from its load side to the frame, with the breaker out and every position tried, before it goes in again.';
  const fluid = at !== undefined && kindOf(model.compiled.parts[at]!.part).traits.fluid;
  return `Whatever could have done this: ${fluid ? 'rubbing, heat, dirt, a loose fitting' : 'water, rubbing, a loose terminal'}.`;
}

/** What a fuse that went wants, whatever took it: "F4 control blew: …". */
export function renewWords(speaker: Speaker, fuse: Part): string {
  if (fuse.kind === 'breaker')
    return `${partWords(speaker, fuse.ref)} tripped: it goes in again once the fault is mended, and is never held in.`;
  return `${partWords(speaker, fuse.ref)} blew: a new one of ${ratingOf(fuse)} goes in, of the same kind and never larger.`;
}

/** What a fuse wants that nobody has looked at, and that has gone by all that was read. */
export function spentWords(speaker: Speaker, fuse: Part): string {
  if (fuse.kind === 'breaker')
    return `${partWords(speaker, fuse.ref)}: whoever ran this tripped it, by all that was read, and nobody has looked. Look now; where it is out, it goes in again once the fault is mended, and is never held in.`;
  return `${partWords(speaker, fuse.ref)}: whoever ran this took it, by all that was read, and nobody has looked. Look now; where it is blown, a new one of ${ratingOf(fuse)} goes in once the fault is mended, of the same kind and never larger.`;
}

function ratingOf(fuse: Part): string {
  return 'amps' in fuse && typeof fuse.amps === 'number' ? `${fuse.amps} A` : 'its rating';
}

/** What is wrong with a suspect: "bad joint, about 6.5 Ω". */
export function faultWords(
  speaker: Speaker,
  {
    part,
    fault,
    severityOhms,
    severityRange,
    other,
    intermittent,
    with: partner,
  }: Pick<Suspect, 'part' | 'fault'> & Partial<Suspect>,
): string {
  const own = faultOf(speaker, part, fault);
  const words = other === undefined ? own : (BETWEEN_WORDS[fault]?.(other) ?? `${own} (${other})`);
  const size =
    severityOhms !== undefined &&
    (fault === 'highResistance' || fault === 'shortedTurns' || fault === 'shortToFrame')
      ? `, ${sizeWords(severityOhms, severityRange)}`
      : '';
  return `${words}${size}${intermittent ? ', comes and goes' : ''}${partner ? `, with ${partner.part} ${faultOf(speaker, partner.part, partner.fault)}` : ''}`;
}

/**
 * What is wrong with a part, as far as the readings tell it: its likeliest fault, and others of it that are nearly as likely. A coil
 * that gets its volts and does not pull is open or stuck, and only its ohms say which.
 */
export function badWords(speaker: Speaker, suspects: readonly Suspect[], part: string): string {
  const own = suspects.filter((one) => one.part === part);
  const least = SAME_PART_SHARE * (own[0]?.share ?? 0);
  const words = own.filter(({ share }) => share >= least).map((one) => faultWords(speaker, one));
  return [...new Set(words)].slice(0, MOST_FAULTS).join(', or ');
}

/** The readings that prove a part, each with where it was taken: on the part, or around it, which clears the rest of its way. */
export function proofLines(
  speaker: Speaker,
  suspect: Suspect,
  proofs: Proofs,
  readings: readonly Reading[],
): string[] {
  const onPart = new Set(suspect.for.filter((one) => one.onPart).map(({ reading }) => reading));
  return [...proofs.readings]
    .sort((a, b) => Number(onPart.has(b)) - Number(onPart.has(a)))
    .map((at) => `${onPart.has(at) ? 'On it' : 'Around it'}: ${readingWords(speaker, readings[at]!)}`);
}

/** "Q1 press valve is proved bad: stuck mid-way." */
export function namedLine(
  speaker: Speaker,
  { part, fault, mended }: Extract<Verdict, { state: 'name' }>,
  suspects: readonly Suspect[],
): string {
  const words = `${provedWords(fault)}: ${badWords(speaker, suspects, part)}.`;
  return `${partWords(speaker, part)} ${mended ? `was ${words} It was mended since.` : `is ${words}`}`;
}

/** Why the verdict is what it is, with the readings it speaks of in their own words. */
export function whyWords(speaker: Speaker, verdict: Verdict, readings: readonly Reading[]): string {
  return verdictWhy(verdict, (at) => quotedReading(speaker, readings, at));
}

function quotedReading(speaker: Speaker, readings: readonly Reading[], at: number): string {
  return `“${readingWords(speaker, readings[at]!)}”`;
}

/** Of more doubted parts than these the first are named. */
const MOST_DOUBTED = 5;

/** What the readings mean so far, whole sentences, the weightiest first: the figure says as many as it has room for. */
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
    // A reading on a machine that nobody tried moves little, however cheap it is.
    if (seenWork(speaker.model).length > 0)
      return [
        'The doubt is spread evenly.',
        'Nothing was tried yet: what works and what does not, under Complaint, moves most of it.',
      ];
    const place = next ? testPlace(speaker, next.test) : '';
    return ['The doubt is spread evenly.', ...(place ? [`One reading, ${place}, moves most of it.`] : [])];
  }
  const spared = parts.filter(({ index }) => standings[index]!.state === 'spared');
  const doubted = parts.filter(({ index }) => standings[index]!.turns > 0);
  const last = readings.at(-1)!;
  switch (verdict.state) {
    case 'name': {
      return [
        namedLine(speaker, verdict, suspects),
        ...verdict.proofs.readings
          .slice(0, 2)
          .map((at) => `${sentence(readingWords(speaker, readings[at]!))}`),
      ];
    }
    case 'unexplained':
      return [
        'The readings do not fit this drawing.',
        `Take ${quotedReading(speaker, readings, verdict.reading)} again before anything else, or check the drawing.`,
      ];
    case 'noFault':
      return [
        'Every reading is what a sound circuit gives.',
        'What these readings could not see is still in doubt.',
      ];
    case 'keepTesting': {
      if (verdict.retake !== undefined) {
        return [
          `${quotedReading(speaker, readings, verdict.retake)} does not fit the others.`,
          'Take it again before anything else.',
        ];
      }
      const lines: string[] = [];
      if (verdict.part && (verdict.share ?? 0) > 0.8)
        lines.push(
          verdict.proofs?.onPart
            ? whyWords(speaker, verdict, readings)
            : `${verdict.part} stands clear. It wants proof on the part itself.`,
        );
      else if (doubted.length > 0)
        lines.push(
          `The doubt is on ${listWords(
            doubted.map(({ part }) => part.ref),
            'and',
            MOST_DOUBTED,
          )}.`,
        );
      lines.push(`Last: ${readingWords(speaker, last)}.`);
      if (spared.length > 0) {
        lines.push(
          `${spared.length} part${spared.length === 1 ? ' has' : 's have'} carried current and ${spared.length === 1 ? 'is' : 'are'} spared.`,
        );
      }
      return lines;
    }
  }
}

function sentence(text: string): string {
  return `${capital(text)}.`;
}

/** For and against, the two strongest of each. */
export function evidenceWords(
  speaker: Speaker,
  evidence: Suspect['for'],
  readings: readonly Reading[],
): string {
  if (evidence.length === 0) return 'Nothing.';
  return evidence
    .slice(0, 2)
    .map(({ reading }) => sentence(readingWords(speaker, readings[reading]!)))
    .join(' ');
}
