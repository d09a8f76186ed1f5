import 'server-only';
import { packRuns } from '@/core/job/jobDigest';
import {
  countJobs,
  countMachines,
  listJobs,
  listMachines,
  type JobCursor,
  type JobFilter,
  type ShedRow,
} from '@/db/jobs';
import { jobsCount } from '@/words/en/history';
import { digestSoon } from '../desk/digests';
import type { JobRowFacts } from './JobRow';

/** More than a screen of the shed; twice as many would be more than 80 kB on their way to a tablet. */
export const JOBS_A_PAGE = 12;
const MOST_MACHINES = 20;
/** Of what is searched for no more is counted: a common word would go through every job that there ever was. */
const MOST_COUNTED = 500;

/** A page of jobs with what the shed shows of each, and the machines that somebody works on. */
export async function openShed(filter: JobFilter, after: JobCursor | undefined) {
  const [jobs, total, [allMachines, machines]] = await Promise.all([
    listJobs(filter, JOBS_A_PAGE + 1, after),
    // What is counted off a key is counted whole.
    countJobs(filter, filter.text ? MOST_COUNTED + 1 : undefined),
    shedMachines(),
  ]);
  const page = jobs.slice(0, JOBS_A_PAGE);
  for (const { id, digest } of page) if (!digest) digestSoon(id);
  const last = page.at(-1);
  return {
    jobs: page.map(rowFacts),
    total: jobsCount(total, filter.text ? MOST_COUNTED : Infinity),
    machines,
    allMachines,
    more: jobs.length > JOBS_A_PAGE && last ? { openedAt: last.opened_at, id: last.id } : null,
  };
}

/** How many machines there are, and those that are shown: all of a small shed, of a large one those with a job in hand. */
async function shedMachines() {
  const all = await countMachines();
  return [all, await listMachines(MOST_MACHINES, { busy: all > MOST_MACHINES })] as const;
}

function rowFacts({ number, title, person, machine_code, machine_name, digest }: ShedRow): JobRowFacts {
  return {
    number,
    title,
    person,
    machineCode: machine_code,
    machineName: machine_name,
    digest: digest
      ? { next: digest.next, defects: digest.defects, path: packRuns(digest.runs), left: digest.left }
      : null,
  };
}
