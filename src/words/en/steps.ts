import type { Entry } from '@/core/job/entries';
import type { NextStep } from '@/core/job/rules/nextStep';
import type { StepId } from '@/core/job/rules/stepsDone';
import { modeName, testPlace, type Speaker } from './readings';
import { entryWords } from './refusals';

export const STEP_NAMES: Readonly<Record<StepId, string>> = {
  complaint: 'Complaint',
  locate: 'Locate',
  'make-safe': 'Make safe',
  'as-found': 'As found',
  test: 'Test',
  decide: 'Decide',
  fix: 'Fix',
  prove: 'Prove',
  'hand-over': 'Hand over',
};

/** That a machine went out without what was known of it. */
export function overtakenWords(by: Entry): string {
  return `handed over before this came: ${entryWords(by)}, ${by.person}`;
}

/** What is to be done next on a job, in a line. */
export function nextStepWords(speaker: Speaker, next: NextStep): string {
  switch (next.step) {
    case 'handedOver':
      return 'Handed over';
    case 'overtaken':
      return 'Look at what came, and hand over anew';
    case 'prove':
      return 'Prove what was mended';
    case 'decideAgain':
      return `Decide again: ${next.note}`;
    case 'fix':
      return `Fix: ${next.action} ${next.part}`;
    case 'handOver':
      return 'Hand over: nothing is changed';
    case 'decide':
      return next.part ? `Decide: ${next.part} is proved bad` : 'Decide: nothing wrong found';
    case 'test':
      return `Test: ${testPlace(speaker, next.test)}, ${modeName(speaker, next.test)}`;
    case 'noTestLeft':
      return 'No test left that tells the suspects apart';
  }
}
