import { STEP_IDS, type StepId } from '@/core/job/rules/stepsDone';

/** The step that an address names; the test where it names none. */
export function stepOf(value: string | null | undefined): StepId {
  return STEP_IDS.find((id) => id === value) ?? 'test';
}

/** A job that was begun without the server and has no number yet: here it goes by the negative of what the browser calls it. */
export function isBegun(job: number): boolean {
  return job < 0;
}

/** Address of a step of a job, with what else it holds. */
export function stepAddress(job: number, step: StepId, query: Readonly<Record<string, string>> = {}): string {
  const words = new URLSearchParams({
    ...(isBegun(job) ? { job: String(-job) } : {}),
    ...(step === 'test' ? {} : { step }),
    ...query,
  }).toString();
  return `${isBegun(job) ? '/begun' : `/jobs/${job}`}${words ? `?${words}` : ''}`;
}

/** What the browser calls the job that an address of a begun one's desk names; null where it names none. */
export function begunIn(query: { get: (name: string) => string | null }): number | null {
  const said = query.get('job') ?? '';
  return /^[1-9]\d{0,8}$/.test(said) ? Number(said) : null;
}
