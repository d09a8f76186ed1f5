import { Check, ChevronDown } from 'lucide-react';
import { Brand } from '@/ui/Brand';
import { LazyMenu } from '@/ui/LazyMenu';
import { STEP_IDS, type StepId } from '@/core/job/rules/stepsDone';
import { STEP_NAMES } from '@/words/en/steps';
import { StepLink } from './StepLink';
import { isBegun } from './steps';

export interface JobTitle {
  number: number;
  title: string;
  machineCode: string;
  machineName: string;
  person: string | null;
}

/** The head of every job screen: brand, job, and the nine steps as index tabs. */
export function JobHead({ job, step, done }: { job: JobTitle; step: StepId; done: readonly StepId[] }) {
  const at = STEP_IDS.indexOf(step);
  const steps = STEP_IDS.map((id) => ({ id, name: STEP_NAMES[id] }));
  return (
    <header className="relative flex h-14 shrink-0 items-stretch border-b-2 border-ink bg-film pl-6 max-tablet:h-auto max-tablet:min-h-14 max-tablet:pl-3">
      <Brand />
      <div className="flex min-w-0 flex-1 flex-col justify-center border-l border-rule px-4 max-tablet:px-2 desk:flex-initial desk:max-w-[200px] xl:max-w-[440px]">
        {/* Beside the steps a phone has no room for a line: three short ones say more. */}
        <h1
          className="truncate text-[17px] leading-5 font-[750] max-tablet:line-clamp-3 max-tablet:text-[15px] max-tablet:leading-[18px] max-tablet:whitespace-normal"
          title={job.title}
        >
          {job.machineCode} {job.title}
        </h1>
        <p className="truncate text-[15px] leading-5 text-ink2 max-tablet:hidden">
          {job.machineName}, {isBegun(job.number) ? 'begun on this device' : `job ${job.number}`}
          {job.person ? `, ${job.person}` : ''}
        </p>
      </div>
      <nav
        aria-label="Steps of the job"
        className="ml-auto hidden shrink-0 items-stretch pr-3 desk:flex print:hidden!"
      >
        {steps.map(({ id, name }) => (
          <StepLink
            key={id}
            step={id}
            aria-current={id === step ? 'step' : undefined}
            className={
              id === step
                ? 'relative top-[2px] mt-2 flex items-center border-2 border-b-0 border-ink bg-sheet px-3.5 text-[17px] font-[780]'
                : 'flex items-center px-1.5 text-[15.5px] whitespace-nowrap text-ink2 xl:px-2.5'
            }
          >
            {done.includes(id) && id !== step ? (
              <Check
                size={17}
                strokeWidth={3}
                className="mr-1 text-verdi max-xl:absolute max-xl:size-0"
                aria-label="done"
              />
            ) : null}
            {/* Nine ticks and nine names have no room on a tablet: there a line says the same. */}
            <span
              className={
                done.includes(id) && id !== step
                  ? 'text-verdi max-xl:underline max-xl:decoration-2 max-xl:underline-offset-[5px]'
                  : ''
              }
            >
              {name}
            </span>
          </StepLink>
        ))}
      </nav>
      <LazyMenu
        trigger={
          <button
            type="button"
            className="m-1 flex items-center gap-2 border-2 border-ink bg-sheet px-3 text-[16px] whitespace-nowrap desk:hidden print:hidden!"
          >
            <strong className="font-[780]">{STEP_NAMES[step]}</strong>
            <span className="fig text-[15px]">
              {at + 1} of {STEP_IDS.length}
            </span>
            <ChevronDown size={16} aria-hidden />
          </button>
        }
      >
        {({ Panel, Item }) => (
          <Panel align="end">
            {steps.map(({ id, name }) => (
              <Item key={id} asChild>
                <StepLink step={id}>{name}</StepLink>
              </Item>
            ))}
          </Panel>
        )}
      </LazyMenu>
    </header>
  );
}
