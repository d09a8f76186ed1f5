import { calibrate, type Calibration } from './calibration';
import type { Doubt } from './outcome';
import type { Exposure } from './learntOdds';

/** A job that was proved, as the record counts it. */
export interface RecordedJob {
  job: number;
  /** Type of its function: an index into the types. */
  type: number;
  part: string;
  /** See `faultKey`; null where the decision named no fault that the part can have. */
  key: string | null;
  named: string | null;
  doubt: readonly Doubt[];
  cameBack: boolean;
}

/** How often faults of one class were found, against what the rules of thumb would have. */
export interface ClassCount {
  /** Kind of part and fault: see `faultClass`. */
  of: string;
  found: number;
  expected: number;
}

/** What was found in functions of one type. */
export interface TypeCount {
  type: number;
  jobs: number;
  /** Parts that it was, most often first. */
  parts: { part: string; key: string | null; found: number }[];
}

export interface ShedRecord {
  jobs: number;
  classes: ClassCount[];
  types: TypeCount[];
  calibration: Calibration;
  /** Jobs in which the program named another part than the one it was. */
  wrong: { job: number; named: string; part: string }[];
  /** Jobs to which somebody had to come back: nothing is counted of them. */
  cameBack: number[];
}

/** A class that was neither found nor to be expected once in so many jobs is left out. */
const LEAST_EXPECTED = 0.5;
/** Two jobs of a type are no pattern. */
const LEAST_OF_TYPE = 3;

/** What a shed's proved jobs come to. Nothing is counted of a job to which somebody had to come back. */
export function shedRecord(types: readonly Exposure[], all: readonly RecordedJob[]): ShedRecord {
  const jobs = all.filter(({ cameBack }) => !cameBack);
  const classes = new Map<string, ClassCount>();
  const count = (of: string) => {
    const known = classes.get(of);
    if (known) return known;
    const fresh = { of, found: 0, expected: 0 };
    classes.set(of, fresh);
    return fresh;
  };
  const ofType = new Map<number, RecordedJob[]>();
  for (const job of jobs) ofType.set(job.type, [...(ofType.get(job.type) ?? []), job]);
  for (const [type, own] of ofType) {
    const exposed = types[type]!;
    const total = exposed.reduce((sum, { prior }) => sum + prior, 0);
    for (const { of, prior } of exposed) count(of).expected += (own.length * prior) / total;
    for (const { key } of own) {
      const fault = exposed.find((one) => one.key === key);
      if (fault) count(fault.of).found++;
    }
  }
  return {
    jobs: jobs.length,
    classes: [...classes.values()]
      .filter(({ found, expected }) => found > 0 || expected >= LEAST_EXPECTED)
      .sort((a, b) => b.found - a.found || b.expected - a.expected),
    types: [...ofType]
      .filter(([, own]) => own.length >= LEAST_OF_TYPE)
      .map(([type, own]) => ({ type, jobs: own.length, parts: partsOf(own) }))
      .sort((a, b) => b.jobs - a.jobs),
    calibration: calibrate(jobs),
    wrong: jobs.flatMap(({ job, named, part }) =>
      named !== null && named !== part ? [{ job, named, part }] : [],
    ),
    cameBack: all.filter(({ cameBack }) => cameBack).map(({ job }) => job),
  };
}

function partsOf(jobs: readonly RecordedJob[]): TypeCount['parts'] {
  const found = new Map<string, TypeCount['parts'][number]>();
  for (const { part, key } of jobs) {
    const of = key ?? part;
    const known = found.get(of);
    if (known) known.found++;
    else found.set(of, { part, key, found: 1 });
  }
  return [...found.values()].sort((a, b) => b.found - a.found);
}
