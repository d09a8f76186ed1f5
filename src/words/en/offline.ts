const count = (many: number, one: string, more: string) => `${many} ${many === 1 ? one : more}`;

/** What waits in a browser, in lines, each with the jobs that it is about. `inJob`: a job is open, which says its own. */
export function waitingWords(
  waiting: {
    entries: number;
    jobs: readonly number[];
    aside: readonly number[];
    others: ReadonlyMap<string, number>;
  },
  inJob: boolean,
): { words: string; jobs: readonly number[] }[] {
  const lines: { words: string; jobs: readonly number[] }[] = [];
  const { jobs, aside, others } = waiting;
  if (jobs.length > 0)
    lines.push({
      words: inJob
        ? `Entries of ${count(jobs.length, 'other job wait', 'other jobs wait')} here for the server.`
        : `${count(waiting.entries, 'entry', 'entries')} of ${count(jobs.length, 'job', 'jobs')} ${waiting.entries === 1 ? 'waits' : 'wait'} here for the server.`,
      jobs,
    });
  if (inJob) return lines;
  if (aside.length > 0) lines.push({ words: 'Not taken by the server; look at it there:', jobs: aside });
  for (const [person, many] of others)
    lines.push({
      words: `${count(many, 'entry', 'entries')} of ${person} ${many === 1 ? 'waits' : 'wait'} on this device, and will be sent when ${person} signs in here.`,
      jobs: [],
    });
  return lines;
}
