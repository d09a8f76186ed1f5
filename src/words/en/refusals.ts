import type { Entry } from '@/core/job/entries';
import type { EntryRefusal } from '@/core/job/rules/mayAppend';
import type { HandOverStop } from '@/core/job/rules/handOverStops';
import type { ProofRefusal, ProofStep } from '@/core/job/rules/provedDead';
import type { StorageRefusal } from '@/core/job/rules/storageRefusal';
import type { GaugeMark } from '@/core/units/quantities';
import { oilWords, refrigerantWords, reliefWords } from './holds';
import { pointTitle } from './energies';
import { LICENCE_WORDS } from './people';
import { measureWords } from './bench';
import { careWords, proofWords } from './proofs';
import { pressureWords, type Speaker } from './readings';

const PA_IN_KPA = 1000;

function stepWords(step: ProofStep): string {
  switch (step.at) {
    case 'knownBefore':
      return 'Known source';
    case 'knownAfter':
      return 'Known source again';
    case 'work':
      return `${step.from} to ${step.to}`;
    case 'gauge':
      return 'Gauge';
  }
}

/** Why a value proves nothing, in a sentence that names the field, the value and what to do. */
export function proofRefusalWords(refusal: ProofRefusal, unit: GaugeMark): string {
  switch (refusal.code) {
    case 'missing':
      return `${stepWords(refusal.step)}: no value. Proving dead needs the known source, each place, the known source again.`;
    case 'noValue':
      return `${stepWords(refusal.step)}: “${refusal.typed}” is no value. Type what the meter shows, as 0.02 or 12.6 V.`;
    case 'overRange':
      return `${stepWords(refusal.step)}: “${refusal.typed}” is over range and proves nothing. Take the volts range and measure again; unknown counts as live.`;
    case 'wrongUnit':
      return `${stepWords(refusal.step)}: “${refusal.typed}” is ${refusal.unit}. ${refusal.wanted === 'V' ? 'Only volts' : 'Only a pressure'} shows it dead.`;
    case 'knownSilent':
      return `${stepWords(refusal.step)}: ${refusal.typed} is under ${refusal.leastVolts} V. A meter that shows nothing on a live source proves nothing.`;
    case 'alive':
      return `${stepWords(refusal.step)}: ${refusal.typed} is over ${refusal.unit === 'V' ? `${refusal.most} V` : pressureWords(refusal.most / PA_IN_KPA, unit)}: it is not dead. Find what feeds it before anything else.`;
    case 'notTried':
      return 'Say how it was shown: gauge at zero, load resting, start tried.';
  }
}

/** What keeps the machine from going out, in a line. */
export function stopWords(speaker: Speaker, stop: HandOverStop): string {
  switch (stop.code) {
    case 'undecided':
      return 'Nothing is decided yet.';
    case 'sentBack':
      return 'The lead sent the decision back.';
    case 'unseen':
      return `${stop.by} decided it as a learner, and nobody else has looked at it.`;
    case 'noFix':
      return `It is decided to work on ${stop.part || 'a part'}, and no work on it is written down.`;
    case 'neverMadeSafe':
      return 'A test was taken on the dead circuit, and nobody signed that it was made safe.';
    case 'notShown':
      return `Not shown: ${proofWords(speaker, stop.proof)}`;
  }
}

const TYPE_WORDS: Readonly<Record<Entry['type'], string>> = {
  complaint: 'the complaint',
  code: 'a code',
  reading: 'a reading',
  trace: 'a trace',
  retest: 'what is to be read again',
  joined: 'another function',
  redrawn: 'another version of the drawing',
  noReach: 'a point out of reach',
  skippedTest: 'a skipped test',
  isolation: 'a lock put on',
  reopened: 'a point opened',
  madeSafe: 'the signature under make safe',
  photo: 'a picture',
  wire: 'a wire',
  looked: 'a look',
  ledger: 'something put in',
  ledgerOut: 'something taken out',
  ledgerSeen: 'something seen to be out',
  decision: 'the decision',
  opinion: 'the lead’s word',
  fix: 'a fix',
  spareTest: 'a spare on the bench',
  proof: 'a proof',
  handOver: 'the hand-over',
  withdrawal: 'something taken back',
};

/** What an entry is, for a list of entries. */
export function entryWords(entry: Entry): string {
  const what = TYPE_WORDS[entry.type];
  const which =
    entry.type === 'isolation' || entry.type === 'reopened'
      ? ` ${pointTitle(entry.body.point)}`
      : entry.type === 'ledger' || entry.type === 'ledgerOut' || entry.type === 'ledgerSeen'
        ? `: ${entry.body.item}`
        : entry.type === 'reading'
          ? ` ${entry.body.typed}`
          : entry.type === 'fix'
            ? ` of ${entry.body.part}`
            : '';
  return `${what}${which}`;
}

/** Why an entry was not taken, in a sentence that says what to do about it. */
export function refusalWords(refusal: EntryRefusal | StorageRefusal, speaker: Speaker): string {
  switch (refusal.code) {
    case 'input':
      return `${refusal.field}: ${refusal.problem}`;
    case 'clock':
      return `The clock of this device says ${refusal.at.slice(0, 10)}. Set it, then write the entry again.`;
    case 'noState':
      return `${TYPE_WORDS[refusal.type]} has to say which state of the job it was written against.`;
    case 'moved':
      return `The job has moved since: ${refusal.missed
        .slice(0, 4)
        .map((entry) => `${entryWords(entry)}, ${entry.person}`)
        .join('; ')}. Look at it as it stands now, then write it again.`;
    case 'notProved':
      return `${pointTitle(refusal.point)} is not proved dead. ${proofRefusalWords(refusal.refusal, speaker.gaugeUnit)}`;
    case 'notClosed':
      return `Still to close: ${refusal.points.map(pointTitle).join('; ')}.`;
    case 'handNotSafe':
      return `${refusal.part} by hand: the machine does not stand made safe. Lock it and sign Make safe first, then put a hand to it and write down what you felt.`;
    case 'cutsRelief':
      return `${reliefWords(refusal.reliefs)} No reading with it off is taken.`;
    case 'opensOil':
      return `${oilWords(refusal.at)} No reading with it open is taken.`;
    case 'opensRefrigerant':
      return `${refrigerantWords(refusal.at)} No reading with it open is taken.`;
    case 'notLicensed':
      return `${refusal.person} is not licensed for ${LICENCE_WORDS[refusal.licence]} here: somebody who is does this, and writes it down. A lead says who is licensed.`;
    case 'notYourName':
      return `It is written in the name of ${refusal.person}, and ${refusal.by} is signed in. Nobody signs for somebody else: ${refusal.person} signs in and sends it.`;
    case 'notYourLock':
      return refusal.owners.length === 0
        ? `${pointTitle(refusal.point)}: no such lock is on.`
        : `The lock on ${pointTitle(refusal.point)} is put on by ${refusal.owners.join(', ')}: its owner takes it off. Where the owner is gone a lead does, with a reason and a second person.`;
    case 'lockNeedsSecond':
      return `To take off the lock of ${refusal.owner} on ${pointTitle(refusal.point)} a second person, no learner, stands by and gives their PIN.`;
    case 'notWitnessed':
      return `${refusal.second} has not signed it with their own PIN.`;
    case 'learnerAlone':
      return `A learner signs ${TYPE_WORDS[refusal.type]} beside a technician or a lead, who gives their PIN.`;
    case 'learnerUnsaid':
      return 'A learner’s decision waits for a second pair of eyes, and has to say so. Write it again.';
    case 'decisionUnseen':
      return `${refusal.by} decided it as a learner. A technician or a lead looks at it under Decide first.`;
    case 'opinionOwn':
      return `${refusal.person} cannot be the second pair of eyes here: a technician or a lead who did not decide it can.`;
    case 'careShown':
      return `${careWords(refusal.care)} is shown before a refrigerant circuit goes back to work; it is not left with a reason.`;
    case 'defeatsGuard':
      return `${refusal.guards.join(', ')} guards, or may guard, a person or a limit: no reading with it bridged is taken. Say on the drawing whom it protects.`;
    case 'mayNotBeLeft':
      return `${refusal.proof.replace(/^ledger /, '')} cannot be left in. Take it out, and show that it is out.`;
    case 'guardUntried':
      return `${refusal.guards.join(', ')} guards, or may guard, a person, a limit or a load. Show that it stops what it must; it cannot be left with a reason.`;
    case 'notInLedger':
      return `${refusal.item} does not stand in the ledger as it would have to.`;
    case 'sameEyes':
      return `${refusal.person} took it out; somebody else has to see that it is out.`;
    case 'spareUnread':
      return `The spare for ${refusal.part} is not read on the bench, or read wrong: ${refusal.measures.map(measureWords).join(', ')}. Read it first, or write why it was fitted without.`;
    case 'stops':
      return `Not handed over. ${refusal.stops
        .slice(0, 3)
        .map((stop) => stopWords(speaker, stop))
        .join(' ')}${refusal.stops.length > 3 ? ` And ${refusal.stops.length - 3} more.` : ''}`;
    case 'conflict':
      return `entry ${refusal.id} already exists with another content; give the new one an id of its own`;
    case 'storage':
      return 'It holds something that cannot be stored; type it again.';
  }
}
