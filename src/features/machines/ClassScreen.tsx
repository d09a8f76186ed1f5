import { Link, LINK } from '@/ui/Link';
import { Heading, Nothing } from '@/ui/sheet';
import { drawnWords, machinesCount, wayWords } from '@/words/en/classes';
import type { ClassPage } from './classes';

/** A class of equipment as a whole: how each function is drawn on its machines, where one differs, and what was found. */
export function ClassScreen({ name, machines, functions }: ClassPage) {
  const asked = new URLSearchParams({ class: name }).toString();
  return (
    <div className="grid gap-x-9 px-6 pb-8 max-tablet:px-3 desk:grid-cols-[minmax(0,1fr)_360px]">
      <section aria-labelledby="functions" className="min-w-0">
        <Heading id="functions" aside={`${functions.length}`}>
          Functions
        </Heading>
        {functions.length === 0 ? <Nothing>Nothing is drawn for a machine of this class yet.</Nothing> : null}
        <ul>
          {functions.map((one) => (
            <Drawn key={one.name} of={machines} {...one} />
          ))}
        </ul>
      </section>
      <section aria-labelledby="more">
        <Heading id="more">Of this class</Heading>
        <ul className="text-[16.5px]">
          <li>
            <Link className={LINK} href={`/machines?${asked}`}>
              Its {machinesCount(machines)}
            </Link>
          </li>
          <li>
            <Link className={LINK} href={`/drift?${asked}`}>
              What drifts on them
            </Link>
          </li>
          <li>
            <Link className={LINK} href="/record">
              What usually breaks, in the whole shed
            </Link>
          </li>
          <li>
            <Link className={LINK} href="/tables">
              Its limits, where they are its own
            </Link>
          </li>
        </ul>
      </section>
    </div>
  );
}

/** One function: on how many machines, in what ways, and what it mostly was. */
function Drawn({
  of,
  name,
  machines,
  parts,
  found,
  ways,
  moreWays,
}: ClassPage['functions'][number] & { of: number }) {
  const [usual, ...others] = ways;
  return (
    <li className="border-b-[1.5px] border-rule py-2" data-testid="class-function">
      <strong className="block text-[18px] font-[700] break-words">{name}</strong>
      <span className="block text-[15.5px] text-ink2">
        {drawnWords({ parts, machines, of, ways: ways.length + moreWays })}
      </span>
      {found ? (
        <span className="block text-[16px] break-words">In functions drawn like this {found.words}.</span>
      ) : null}
      {usual && others.length > 0 ? (
        <ul className="mt-1.5 grid gap-1.5 border-l-[3px] border-rule pl-3 text-[16px]">
          <li className="break-words">
            <span className="font-[650]">As most,</span> {wayWords(usual)}
          </li>
          {others.map((way) => (
            <li key={way.named.join()} className="break-words">
              <span className="font-[650]">Otherwise,</span> {wayWords(way)}
              {way.lines.map((line) => (
                <span key={line} className="block pl-3 text-ink2">
                  {line}
                </span>
              ))}
              {way.more > 0 ? <span className="block pl-3 text-ink2">and {way.more} more</span> : null}
            </li>
          ))}
          {moreWays > 0 ? <li>and in {moreWays} other ways</li> : null}
        </ul>
      ) : null}
    </li>
  );
}
