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
  const words = new URLSearchParams({ ...(step === 'test' ? {} : { step }), ...query }).toString();
  return isBegun(job)
    ? `/begun?${new URLSearchParams({ job: String(-job), ...Object.fromEntries(new URLSearchParams(words)) }).toString()}`
    : `/jobs/${job}${words ? `?${words}` : ''}`;
}
