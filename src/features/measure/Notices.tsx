'use client';

const TAG = 'border-2 border-ink bg-sheet p-5';

/** What stands in the place of the next test when there is none to show, with the one way on. */
function Notice({
  title,
  words,
  way,
  onWay,
  testId,
}: {
  title: string;
  words: string;
  way: string;
  onWay: () => void;
  testId?: string;
}) {
  return (
    <section className={TAG} role="alert" data-testid={testId}>
      <h2 className="text-[21px] font-[800]">{title}</h2>
      <p className="mt-2">{words}</p>
      <button type="button" className="mt-4 min-h-11 bg-pencil px-5 font-[750] text-sheet" onClick={onWay}>
        {way}
      </button>
    </section>
  );
}

export function CalculationStopped({ failure, onAgain }: { failure: string; onAgain: () => void }) {
  return (
    <Notice
      title="The calculation stopped"
      words={`${failure} Nothing you pinned is lost.`}
      way="Try again"
      onWay={onAgain}
    />
  );
}

export function CannotBeTaken({ trouble, onBack }: { trouble: string; onBack: () => void }) {
  return (
    <Notice
      title="That reading cannot be taken like this"
      words={`${trouble}.`}
      way="Back to the best test"
      onWay={onBack}
      testId="own-trouble"
    />
  );
}

/** The next test is being chosen, or one's own is being worked out. */
export function Choosing({ own }: { own: boolean }) {
  return (
    <section className={TAG} aria-busy aria-label="Next test">
      {own ? null : (
        <>
          <h2 className="text-[21px] font-[800]">Choosing the next test</h2>
          <p className="mt-2">Trying every fault on this path against every reading that could be taken.</p>
        </>
      )}
    </section>
  );
}
