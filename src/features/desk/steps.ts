import { STEP_IDS, type StepId } from '@/core/job/rules/stepsDone';

/** The step that an address names; the test where it names none. */
export function stepOf(value: string | null | undefined): StepId {
  return STEP_IDS.find((id) => id === value) ?? 'test';
}

/** Address of a step of a job, with what else it holds. */
export function stepAddress(job: number, step: StepId, query: Readonly<Record<string, string>> = {}): string {
  const words = new URLSearchParams({ ...(step === 'test' ? {} : { step }), ...query }).toString();
  return `/jobs/${job}${words ? `?${words}` : ''}`;
}
