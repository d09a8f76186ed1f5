/** The nine steps of a job, in the order the work is done. Looking and listening belongs to As found. */
export const STEPS = [
  { id: 'complaint', name: 'Complaint' },
  { id: 'locate', name: 'Locate' },
  { id: 'make-safe', name: 'Make safe' },
  { id: 'as-found', name: 'As found' },
  { id: 'test', name: 'Test' },
  { id: 'decide', name: 'Decide' },
  { id: 'fix', name: 'Fix' },
  { id: 'prove', name: 'Prove' },
  { id: 'hand-over', name: 'Hand over' },
] as const;

export type StepId = (typeof STEPS)[number]['id'];

export function stepOf(value: string | undefined): StepId {
  return STEPS.find(({ id }) => id === value)?.id ?? 'test';
}
