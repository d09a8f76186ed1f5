import { InputError } from '../../circuit/inputError';
import type { CircuitModel } from '../../circuit/model';
import { findPart } from '../../circuit/situation';
import { bindTest } from '../../diagnosis/predict';
import { samePerson } from '../../people/roles';
import { oilOpened } from '../../safety/pressedOil';
import { reliefsCutOff } from '../../safety/relief';
import { CARES_SHOWN, refrigerantOpened, type RefrigerantCare } from '../../safety/refrigerant';
import { guardsDefeated } from '../../safety/guards';
import { isolationPlan } from '../../safety/isolationPlan';
import type { Entry } from '../entries';
import { careOf, guardsShownBy, proofList, type Proof } from '../proofList';
import { reduceJob } from '../reduceJob';
import { handOverStops, type HandOverStop } from './handOverStops';
import { missedBy, needsNewest } from './newestState';
import { maySign, signingLooksBack, type Signing, type SigningRefusal } from './signing';
import { benchOpen, saysWhatItReads } from './spareOnBench';
import type { BenchMeasure } from '../benchMeasures';
import { provedDead, type ProofRefusal } from './provedDead';
import { standsSafe } from './testGate';
import { handedBy } from './weighOptions';
import { outsideReason } from './writersClock';

/** Why an entry is not taken into a job's log. The wording lives in the interface. */
export type EntryRefusal =
  /** A field that says nothing this circuit knows. */
  | { code: 'input'; field: string; problem: string }
  /** Its time is no time of this job. */
  | { code: 'clock'; at: string }
  /** It does not say which state it was written against. */
  | { code: 'noState'; type: Entry['type'] }
  /** The state moved since: these entries were not seen by its writer. */
  | { code: 'moved'; type: Entry['type']; missed: Entry[] }
  | { code: 'notProved'; point: string; refusal: ProofRefusal }
  /** Points of the plan that are not closed. */
  | { code: 'notClosed'; points: string[] }
  /** A hand on what moves, of a machine that does not stand made safe. */
  | { code: 'handNotSafe'; part: string }
  | { code: 'defeatsGuard'; guards: string[] }
  | { code: 'cutsRelief'; reliefs: string[] }
  | { code: 'opensOil'; at: string[] }
  | { code: 'opensRefrigerant'; at: string[] }
  | SigningRefusal
  | { code: 'mayNotBeLeft'; proof: string }
  /** What a refrigerant circuit is shown to be before it goes back to work. */
  | { code: 'careShown'; care: RefrigerantCare }
  /** Whether a guard stops what it must is shown, never left. */
  | { code: 'guardUntried'; guards: string[] }
  | { code: 'notInLedger'; item: string }
  /** The second person is the one who took it out. */
  | { code: 'sameEyes'; person: string }
  /** A spare that nobody has read on the bench, or that read wrong. */
  | { code: 'spareUnread'; part: string; measures: BenchMeasure[] }
  | { code: 'stops'; stops: HandOverStop[] };

/** What a job looks like to an entry that wants to be added. */
export interface JobBefore {
  model: CircuitModel;
  /** The whole log in order of arrival, for entries that need the state; asked for only then. */
  log: () => readonly Entry[];
  /** Entries numbered after the one that an entry was written against. */
  after: (number: number) => readonly Entry[];
  receivedMs: number;
  /** Under whose name it comes in. */
  signing: Signing;
}

/** Entries whose rules look at the job's state, not only at themselves. */
export function looksAtState(entry: Entry): boolean {
  return needsNewest(entry) || entry.type === 'redrawn' || signingLooksBack(entry) || isLookByHand(entry);
}

/** Somebody had a hand on what moves. That it was not looked at says nothing of a hand. */
function isLookByHand(entry: Entry): entry is Extract<Entry, { type: 'looked' }> {
  return entry.type === 'looked' && handedBy(entry.body.check) !== null && entry.body.finding !== 'notSeen';
}

/** Whether an entry may be added to a job as it stands: the rules that protect people and the record. Null when it may. */
export function mayAppend(entry: Entry, job: JobBefore): EntryRefusal | null {
  if (outsideReason(Date.parse(entry.at), job.receivedMs)) return { code: 'clock', at: entry.at };
  if (needsNewest(entry)) {
    if (!entry.against) return { code: 'noState', type: entry.type };
    const missed = missedBy(entry, job.after(entry.against.number));
    if (missed.length > 0) return { code: 'moved', type: entry.type, missed };
  }
  try {
    return refusalOf(entry, job);
  } catch (error) {
    if (error instanceof InputError) return { code: 'input', field: error.field, problem: error.problem };
    throw error;
  }
}

function refusalOf(entry: Entry, job: JobBefore): EntryRefusal | null {
  const { model, log, signing } = job;
  const plan = () => isolationPlan(model);
  const unsigned = maySign(entry, signing, { model, plan, log });
  if (unsigned) return unsigned;
  switch (entry.type) {
    case 'reading': {
      bindTest(model, entry.body.reading);
      const guards = guardsDefeated(model, entry.body.reading.setup);
      if (guards.length > 0) return { code: 'defeatsGuard', guards };
      const reliefs = reliefsCutOff(model, entry.body.reading.setup);
      if (reliefs.length > 0) return { code: 'cutsRelief', reliefs };
      const oil = oilOpened(model, entry.body.reading);
      if (oil.length > 0) return { code: 'opensOil', at: oil };
      const cold = refrigerantOpened(model, entry.body.reading);
      return cold.length > 0 ? { code: 'opensRefrigerant', at: cold } : null;
    }
    case 'skippedTest':
      bindTest(model, entry.body.test);
      return null;
    case 'ledger':
      if (entry.body.puts) model.situation(entry.body.puts, 'puts');
      return null;
    case 'looked':
      return isLookByHand(entry) && !standsSafe(plan(), reduceJob(log()))
        ? { code: 'handNotSafe', part: handedBy(entry.body.check)! }
        : null;
    case 'isolation': {
      const point = isolationPlan(model).find((one) => one.point === entry.body.point);
      // A lock that this drawing does not ask for harms nobody.
      const refusal = point ? provedDead(point, entry.body) : null;
      return refusal ? { code: 'notProved', point: entry.body.point, refusal } : null;
    }
    case 'madeSafe': {
      const { isolated } = reduceJob(log());
      const open = isolationPlan(model).filter(({ point }) => !isolated.has(point));
      return open.length > 0 ? { code: 'notClosed', points: open.map(({ point }) => point) } : null;
    }
    case 'redrawn': {
      // On a new drawing every reading that counts must still mean something.
      const { readings, after } = reduceJob([...log(), entry]);
      for (const { reading } of [...readings, ...after]) bindTest(model, reading);
      return null;
    }
    case 'ledgerOut':
    case 'ledgerSeen': {
      const line = reduceJob(log()).ledger.find(({ entry: one }) => one.body.item === entry.body.item);
      if (!line || (entry.type === 'ledgerSeen' && !line.out))
        return { code: 'notInLedger', item: entry.body.item };
      return entry.type === 'ledgerSeen' && line.out && samePerson(entry.body.second, line.out.entry.person)
        ? { code: 'sameEyes', person: entry.body.second }
        : null;
    }
    case 'proof': {
      const { proof: id, reason } = entry.body;
      if (reason === undefined) return null;
      // What has to be shown of the machine itself follows from its drawing alone, whatever was decided since; a ledger line from its name.
      const named = ({ id: one }: Proof) => one === id;
      const proof =
        proofList(model, reduceJob([])).find(named) ?? proofList(model, reduceJob(log())).find(named);
      const care = careOf(id);
      if (care && CARES_SHOWN.includes(care.care)) return { code: 'careShown', care: care.care };
      const guards = proof ? guardsShownBy(proof) : [];
      if (guards.length > 0) return { code: 'guardUntried', guards };
      return id.startsWith('ledger ') ? { code: 'mayNotBeLeft', proof: id } : null;
    }
    case 'retest':
      for (const test of entry.body.tests) bindTest(model, test);
      return null;
    case 'trace':
      // A trace of a part that the drawing does not have is nobody's.
      findPart(model.compiled, entry.body.part, 'part');
      return null;
    case 'spareTest':
      return saysWhatItReads(model, entry)
        ? null
        : { code: 'input', field: 'good', problem: `is not what ${entry.body.typed} says of this spare` };
    case 'fix': {
      const { part, untested } = entry.body;
      const measures = untested ? [] : benchOpen(model, reduceJob(log()), part);
      return measures.length > 0
        ? { code: 'spareUnread', part, measures: measures.map(({ measure }) => measure) }
        : null;
    }
    case 'handOver': {
      const stops = handOverStops(model, reduceJob(log()));
      return stops.length > 0 ? { code: 'stops', stops } : null;
    }
    default:
      return null;
  }
}
