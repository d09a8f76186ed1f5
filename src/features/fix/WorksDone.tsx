import { Heading, Nothing } from '@/ui/sheet';
import { partWords } from '@/words/en/readings';
import { useDesk } from '../desk/desk';

/** What was repaired and renewed on this job, the first work first. */
export function WorksDone() {
  const { log, speaker } = useDesk();
  const { fixes, failed } = log.state;
  return (
    <section aria-labelledby="done">
      <Heading id="done">What was done</Heading>
      {fixes.length === 0 ? <Nothing>Nothing yet.</Nothing> : null}
      <ul>
        {fixes.map(({ id, body, person }) => (
          <li key={id} className="border-b-[1.5px] border-rule py-2 text-[16.5px]" data-testid="fix">
            <p className="font-[700]">
              {body.part ? `${partWords(speaker, body.part)}: ` : ''}
              {body.work}
            </p>
            <p className="text-ink2">
              {[
                body.spare && `spare ${body.spare}`,
                body.serial && `serial ${body.serial}`,
                body.dated && `dated ${body.dated}`,
                body.torque && `torque ${body.torque}`,
                body.seals && `seals ${body.seals}`,
                body.untested && `spare not read on the bench, because ${body.untested}`,
                person,
              ]
                .filter(Boolean)
                .join(', ')}
            </p>
          </li>
        ))}
      </ul>
      {failed && fixes.length > 0 ? (
        <p className="py-1.5 text-copper-ink">Something is still wrong after it.</p>
      ) : null}
    </section>
  );
}
