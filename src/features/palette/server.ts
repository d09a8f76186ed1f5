import 'server-only';
import { listJobs, listMachines } from '@/db/jobs';

const MOST_JOBS = 12;

/** What the palette can jump to for a few words: jobs in hand, closed ones, machines. */
export async function findAnything(text: string) {
  const [open, closed, machines] = await Promise.all([
    listJobs({ text }, MOST_JOBS),
    listJobs({ text, closed: true }, MOST_JOBS),
    listMachines(MOST_JOBS, { text }),
  ]);
  return {
    jobs: [...open, ...closed].map(({ number, title, machine_code }) => ({
      number,
      title,
      machine: machine_code,
    })),
    machines: machines.map(({ code, name }) => ({ code, name })),
  };
}
export type Findings = Awaited<ReturnType<typeof findAnything>>;
