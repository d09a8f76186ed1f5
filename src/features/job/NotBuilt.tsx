import Link from 'next/link';
import { STEPS, type StepId } from './steps';

/** A step that this version does not have: says so and leads nowhere. */
export function NotBuilt({ step, number }: { step: StepId; number: number }) {
  const name = STEPS.find(({ id }) => id === step)!.name;
  return (
    <main className="flex-1 bg-sheet px-6 py-10">
      <h2 className="text-[23px] font-[800]">{name} is not built yet</h2>
      <p className="mt-3 max-w-[60ch]">
        Nothing can be entered here in this version. Do this step the way your shed does it on paper; the test
        screen works without it.
      </p>
      {step === 'make-safe' ? (
        <p className="mt-3 max-w-[60ch]">
          Name the energies, lock, bleed, block, prove dead. Local codes, the machine’s own manual and
          licensed practice come first. If you are not sure, stop.
        </p>
      ) : null}
      <Link
        href={`/jobs/${number}`}
        className="mt-6 inline-flex min-h-11 items-center underline underline-offset-4"
      >
        Back to Test
      </Link>
    </main>
  );
}
