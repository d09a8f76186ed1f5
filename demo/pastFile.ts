import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'fflate';
import type { Entry } from '../src/core/job/entries';
import type { JobDigest } from '../src/core/job/jobDigest';
import type { JobLeft } from '../src/core/shed/outcome';

/** A job of the two winters behind the demonstration, handed over, with what was worked out of it. */
export interface PastJob {
  number: number;
  machine: string;
  function: string;
  title: string;
  person: string;
  /** ISO 8601, by the clock of the file. */
  opened: string;
  entries: Entry[];
  digest: JobDigest;
  left: JobLeft;
}

export interface PastFile {
  /** The moment that the file takes for now. */
  now: string;
  jobs: PastJob[];
}

export const PAST_FILE = join('demo', 'past.json.gz');

export function readPast(): PastFile {
  const bytes = readFileSync(join(process.cwd(), PAST_FILE));
  const { now, jobs } = JSON.parse(new TextDecoder().decode(gunzipSync(new Uint8Array(bytes)))) as PastFile;
  // In those winters nobody wrote down the weather.
  const left = (job: PastJob) => job.left.outcome && { ...job.left.outcome, weather: null };
  return { now, jobs: jobs.map((job) => ({ ...job, left: { ...job.left, outcome: left(job) } })) };
}
