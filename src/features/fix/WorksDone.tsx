import { Heading, Nothing } from '@/ui/sheet';
import { capital } from '@/words/en/capital';
import { fittedWords, STILL_WRONG, workWords } from '@/words/en/works';
import { useDesk } from '../desk/desk';

/** What was repaired and renewed on this job, the first work first, and what of it did not mend it. */
export function WorksDone() {
  const { log, speaker } = useDesk();
  const { fixes, failedFixes } = log.state;
  return (
    <section aria-labelledby="done">
      <Heading id="done">What was done</Heading>
      {fixes.length === 0 ? <Nothing>Nothing yet.</Nothing> : null}
      <ul>
        {fixes.map(({ id, body, person }) => (
          <li key={id} className="border-b-[1.5px] border-rule py-2 text-[16.5px]" data-testid="fix">
            <p className="font-[700]">{workWords(speaker, body)}</p>
            <p className="text-ink2">{[...fittedWords(body), person].join(', ')}</p>
            {failedFixes.has(id) ? <p className="text-copper-ink">{capital(STILL_WRONG)}.</p> : null}
          </li>
        ))}
      </ul>
    </section>
  );
}
