import type { CircuitModel } from '../../circuit/model';
import type { Test } from '../../circuit/schema';
import { readingKind } from '../../kinds/reading';
import { isSecondEyes, samePerson, type Licence, type Person } from '../../people/roles';
import { areLineVolts } from '../../safety/lineVolts';
import { isOfRefrigerant } from '../../safety/refrigerant';
import type { IsolationPoint } from '../../safety/isolationPlan';
import type { Entry, EntryOf } from '../entries';
import { careOf } from '../proofList';
import { orderLog, reduceJob } from '../reduceJob';

/** Under whose name an entry comes in, as the server knows it. */
export interface Signing {
  by: Person;
  /** Somebody else who stood by and proved it with their own PIN. */
  witness: Person | null;
  /** A learner's signature under make safe, and a learner's decision, want a second pair of eyes. */
  learnersSeen: boolean;
}

/** Why somebody may not put their name under an entry. The wording lives in the interface. */
export type SigningRefusal =
  /** It is written in a name that is not the writer's. */
  | { code: 'notYourName'; person: string; by: string }
  /** What only somebody with a licence does, and writes down. */
  | { code: 'notLicensed'; person: string; licence: Licence }
  /** A lock is taken off by its owner, or by a lead with a reason and a second person. */
  | { code: 'notYourLock'; point: string; owners: string[] }
  | { code: 'lockNeedsSecond'; point: string; owner: string }
  /** The second person named did not sign it with their own PIN. */
  | { code: 'notWitnessed'; second: string }
  /** A learner signs this beside somebody who is none. */
  | { code: 'learnerAlone'; type: Entry['type'] }
  /** A learner's decision says that it is one. */
  | { code: 'learnerUnsaid' }
  /** A decision that nobody but a learner has seen yet. */
  | { code: 'decisionUnseen'; by: string }
  /** A second opinion comes from somebody who is no learner, and not from who decided. */
  | { code: 'opinionOwn'; person: string };

/** Entries whose signing looks at what stands in the log. */
export function signingLooksBack(entry: Entry): boolean {
  return (
    entry.supersedes !== undefined ||
    entry.type === 'reopened' ||
    entry.type === 'opinion' ||
    entry.type === 'fix'
  );
}

/** Whether somebody may put their name under an entry; null when they may. */
export function maySign(
  entry: Entry,
  signing: Signing,
  job: { model: CircuitModel; plan: () => readonly IsolationPoint[]; log: () => readonly Entry[] },
): SigningRefusal | null {
  const { by, witness, learnersSeen } = signing;
  if (entry.person !== by.name) return { code: 'notYourName', person: entry.person, by: by.name };
  const licence = licenceFor(entry, job.model, job.plan);
  if (licence && !by.licences.includes(licence)) return { code: 'notLicensed', person: by.name, licence };
  const others = lockTakenBack(entry, job.log, by.name);
  if (others) return others;
  switch (entry.type) {
    case 'reopened':
      return lockRefusal(entry, signing, job.log);
    case 'ledgerSeen':
      return isWitnessed(entry.body.second, signing)
        ? null
        : { code: 'notWitnessed', second: entry.body.second };
    case 'madeSafe':
      return by.role === 'learner' && learnersSeen && !isBeside(witness, by)
        ? { code: 'learnerAlone', type: entry.type }
        : null;
    case 'decision':
      return by.role === 'learner' && learnersSeen && entry.body.learner !== true
        ? { code: 'learnerUnsaid' }
        : null;
    case 'opinion': {
      const { decision } = reduceJob(job.log());
      const own = decision?.body.learner === true && samePerson(decision.person, by.name);
      return own || !isSecondEyes(by) ? { code: 'opinionOwn', person: by.name } : null;
    }
    case 'fix': {
      const { decision, opinion } = reduceJob(job.log());
      return decision && isUnseen(decision, opinion) ? { code: 'decisionUnseen', by: decision.person } : null;
    }
    default:
      return null;
  }
}

/** Whether a decision is a learner's that nobody else has approved yet. */
export function isUnseen(decision: EntryOf<'decision'>, opinion: EntryOf<'opinion'> | null): boolean {
  return decision.body.learner === true && opinion?.body.says !== 'approve';
}

/** Whether a reading brings a person with a meter to line volts. */
export function touchesLineVolts({ compiled }: CircuitModel, { kind }: Pick<Test, 'kind'>): boolean {
  const { dead, mechanical, shows } = readingKind(kind);
  return !dead && !mechanical && shows.is === 'figure' && areLineVolts(compiled.supplyVolts);
}

/** The licence that an entry asks of its writer; null where it asks for none. */
export function licenceFor(
  entry: Entry,
  model: CircuitModel,
  plan: () => readonly IsolationPoint[],
): Licence | null {
  switch (entry.type) {
    case 'reading':
      return touchesLineVolts(model, entry.body.reading) ? 'lineVolts' : null;
    case 'isolation': {
      // By what the drawing says of the point, and by what the entry says of itself: either is enough.
      const point = plan().find((one) => one.point === entry.body.point);
      const line =
        entry.body.energy === 'line' ||
        point?.energy === 'line' ||
        point?.prove.some(({ volts }) => areLineVolts(volts)) === true;
      return line ? 'lineVolts' : null;
    }
    case 'fix':
      return isOfRefrigerant(model, entry.body.part) ? 'refrigerant' : null;
    case 'proof': {
      const part = careOf(entry.body.proof)?.part;
      return part !== undefined && isOfRefrigerant(model, part) ? 'refrigerant' : null;
    }
    default:
      return null;
  }
}

/** A second person counts who signed with their own PIN, or who is the writer. */
function isWitnessed(second: string, { by, witness }: Signing): boolean {
  return samePerson(second, by.name) || (witness !== null && samePerson(second, witness.name));
}

/** Whether somebody stands by who can be the second pair of eyes. */
function isBeside(witness: Person | null, by: Person): boolean {
  return witness !== null && isSecondEyes(witness) && !samePerson(witness.name, by.name);
}

/** A lock comes off by its owner's hand; by a lead's for somebody who is gone, with a second person. */
function lockRefusal(
  { body, person }: EntryOf<'reopened'>,
  { by, witness }: Signing,
  log: () => readonly Entry[],
): SigningRefusal | null {
  const { point, owner } = body;
  const locks = reduceJob(log()).locks.get(point) ?? [];
  const owners = locks.map((lock) => lock.person);
  if (owner === undefined || samePerson(owner, person)) {
    const own = locks.length === 0 || owners.some((one) => samePerson(one, person));
    return own ? null : { code: 'notYourLock', point, owners };
  }
  if (by.role !== 'lead' || !owners.some((one) => samePerson(one, owner)))
    return { code: 'notYourLock', point, owners };
  const named = witness && body.second !== undefined && samePerson(body.second, witness.name);
  return named && isBeside(witness, by) ? null : { code: 'lockNeedsSecond', point, owner };
}

/** An entry that takes back, or puts itself in place of, somebody else's lock: that is no way round its owner. */
function lockTakenBack(
  { supersedes }: Entry,
  log: () => readonly Entry[],
  by: string,
): SigningRefusal | null {
  if (supersedes === undefined) return null;
  const { ordered } = orderLog(log());
  const before = ordered.find(({ id }) => id === supersedes);
  if (before?.type !== 'isolation' || samePerson(before.person, by)) return null;
  return { code: 'notYourLock', point: before.body.point, owners: [before.person] };
}
