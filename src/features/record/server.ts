import 'server-only';
import { revalidatePath } from 'next/cache';
import { likeness } from '@/core/circuit/likeness';
import type { CircuitModel } from '@/core/circuit/model';
import type { Circuit } from '@/core/circuit/schema';
import type { FaultName } from '@/core/diagnosis/faultTypes';
import { faultKey } from '@/core/diagnosis/experience';
import { siteTime } from '@/core/units/siteTime';
import type { PartKind } from '@/core/kinds/part/module';
import { exposureOf, type Exposure } from '@/core/shed/learntOdds';
import { shedRecord, type ClassCount, type RecordedJob, type ShedRecord } from '@/core/shed/record';
import { findFunction } from '@/db/library';
import { ofShed } from '@/db/shed';
import { closedWithoutDigest, listOutcomes, outcomesMark, type OutcomeRow } from '@/db/past';
import { faultClassWords, faultOfKind } from '@/words/en/findings';
import { partWords } from '@/words/en/readings';
import { alikeWords } from '@/words/en/record';
import { writeTable } from '@/formats/table';
import { digestSoon } from '../desk/digests';
import { drawnOf } from '../desk/jobModel';
import { openPolicy } from '../policy/server';
import { learnSoon, oddsBefore, openOwnOdds, settleOwnOdds } from './odds';
import type { OwnOdds } from './ownOdds';

/** Jobs that the record is made of, the latest. */
const MOST_JOBS = 5000;
const CAUGHT_UP = 20;
/** Parts of a type that are named. */
const MOST_PARTS = 3;

interface Type {
  name: string;
  model: CircuitModel;
  exposure: Exposure;
}

export interface RecordRow {
  of: string;
  words: string;
  found: number;
  expected: number;
  /** Factor on the rule of thumb that jobs are weighed by now. */
  factor: number;
  /** It is the lead's own. */
  own: boolean;
}

export interface RecordPage extends Pick<ShedRecord, 'jobs' | 'calibration' | 'wrong' | 'cameBack'> {
  rows: RecordRow[];
  types: { name: string; jobs: number; parts: { words: string; found: number }[] }[];
  learn: boolean;
  by: string | null;
  behind: number;
}

/** What the shed's proved jobs come to, and what is made of it. */
export async function openRecord(): Promise<RecordPage> {
  const [{ types, record }, { learn, own, by }, { learnt }, behind] = await Promise.all([
    countedRecord(),
    openOwnOdds(),
    oddsBefore(new Date()),
    closedWithoutDigest(CAUGHT_UP),
  ]);
  for (const id of behind) digestSoon(id);
  return {
    jobs: record.jobs,
    calibration: record.calibration,
    wrong: record.wrong,
    cameBack: record.cameBack,
    rows: withOwn(record.classes, own).map(({ of, found, expected }) => ({
      of,
      words: classWords(of),
      found,
      expected,
      factor: own[of] ?? learnt?.factors.shed[of] ?? 1,
      own: of in own,
    })),
    types: record.types.map(({ type, jobs: count, parts }) => ({
      name: types[type]!.name,
      jobs: count,
      parts: parts.slice(0, MOST_PARTS).map(({ part, key, found }) => ({
        words: partFaultWords(types[type]!.model, part, key),
        found,
      })),
    })),
    learn,
    by,
    behind: behind.length,
  };
}

interface Counted {
  mark: string;
  types: Type[];
  record: ShedRecord;
}
const countedOf = ofShed<{ last: Counted | null }>('record', () => ({ last: null }));

/** The record, counted anew only where a job ended or was opened since. */
async function countedRecord(): Promise<Counted> {
  const counted = countedOf();
  const mark = await outcomesMark();
  if (counted.last?.mark === mark) return counted.last;
  const { types, jobs } = await typed(await listOutcomes(MOST_JOBS));
  const record = shedRecord(
    types.map(({ exposure }) => exposure),
    jobs,
  );
  return (counted.last = { mark, types, record });
}

/** What was found in functions drawn as this one, as words: "13 of 15 were X31.2 …"; null with fewer than three jobs. */
export async function foundAlike(circuit: Circuit): Promise<{ jobs: number; words: string } | null> {
  const { types, record } = await countedRecord();
  const key = likeness(circuit);
  const counted = record.types.find(({ type }) => likeness(types[type]!.model.compiled.circuit) === key);
  if (!counted) return null;
  const { model } = types[counted.type]!;
  const parts = counted.parts
    .slice(0, MOST_PARTS)
    .map(({ part, key: fault, found }) => ({ words: partFaultWords(model, part, fault), found }));
  return { jobs: counted.jobs, words: alikeWords({ jobs: counted.jobs, parts }) };
}

/** Classes with those that the lead has set: one that was never found is still kept when the table is. */
function withOwn(classes: readonly ClassCount[], own: OwnOdds['own']): ClassCount[] {
  const known = new Set(classes.map(({ of }) => of));
  const set = Object.keys(own).filter((of) => !known.has(of));
  return [...classes, ...set.map((of) => ({ of, found: 0, expected: 0 }))];
}

function classWords(of: string): string {
  const [kind, fault] = of.split('|') as [PartKind, FaultName];
  return faultClassWords(kind, fault);
}

function partFaultWords(model: CircuitModel, part: string, key: string | null): string {
  const words = partWords({ model } as Parameters<typeof partWords>[0], part);
  const at = model.compiled.partIndex.get(part);
  if (key === null || at === undefined) return words;
  const fault = key.slice(part.length + 1) as FaultName;
  return `${words}, ${faultOfKind(model.compiled.parts[at]!.part.kind, fault)}`;
}

/** Outcomes with the type of function that each was in. */
async function typed(outcomes: readonly OutcomeRow[]): Promise<{ types: Type[]; jobs: RecordedJob[] }> {
  const types: Type[] = [];
  const at = new Map<string, number>();
  const jobs: RecordedJob[] = [];
  for (const {
    type_key,
    function_id,
    function_name,
    number,
    part,
    fault,
    named,
    doubt,
    came_back,
  } of outcomes) {
    if (!at.has(type_key)) {
      const drawn = await findFunction(function_id);
      if (!drawn) continue;
      const { model } = drawnOf(drawn.circuit);
      at.set(type_key, types.length);
      types.push({ name: function_name, model, exposure: exposureOf(model) });
    }
    jobs.push({
      job: number,
      type: at.get(type_key)!,
      part,
      key: fault === null ? null : faultKey({ ref: part, fault: fault as FaultName }),
      named,
      doubt,
      cameBack: came_back,
    });
  }
  return { types, jobs };
}

/** Whether the shed's odds are used, and the lead's own in place of learnt ones. */
export async function settleOdds(settled: OwnOdds, person: string): Promise<{ trouble: string | null }> {
  await settleOwnOdds(settled, person);
  learnSoon();
  revalidatePath('/record');
  return { trouble: null };
}

/** Every proved job with what was said of it and what it was, as CSV. */
export async function recordTable(): Promise<string> {
  const [outcomes, { policy }] = await Promise.all([listOutcomes(MOST_JOBS), openPolicy()]);
  const columns = [
    'job',
    'closed',
    'machine',
    'equipment',
    'function',
    'part',
    'fault',
    'named',
    'last doubt on the part',
    'minutes',
    'came back',
  ] as const;
  return writeTable(
    columns,
    outcomes.map((one) => ({
      job: one.number,
      closed: siteTime(one.closed_at.toISOString(), policy.timeZone).date,
      machine: one.machine_code,
      equipment: one.equipment ?? '',
      function: one.function_name,
      part: one.part,
      fault: one.fault ?? '',
      named: one.named ?? '',
      'last doubt on the part': (one.doubt.at(-1)?.find(([part]) => part === one.part)?.[1] ?? 0).toFixed(3),
      minutes: Math.round(one.minutes),
      'came back': one.came_back ? 'yes' : 'no',
    })),
  );
}
