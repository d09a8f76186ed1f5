'use client';

import { Check } from 'lucide-react';
import { goneFuses, spentFuses } from '@/core/job/blownFuses';
import { Heading, Nothing, Trouble } from '@/ui/sheet';
import { inTwenty, WindingBar } from '@/ui/Turns';
import { evidenceWords, badWords, proofLines, provedWords, spentWords, whyWords } from '@/words/en/findings';
import { partWords } from '@/words/en/readings';
import { AlikeLine } from '../record/AlikeLine';
import { useDesk } from '../desk/desk';

/** What the readings prove, what speaks for and against it, and where the doubt sits. */
export function Evidence() {
  const { outlook, speaker, failure } = useDesk();
  if (failure) return <Trouble>{failure} Your readings are safe.</Trouble>;
  if (!outlook) return <Nothing>Weighing the readings.</Nothing>;
  const { diagnosis, readings, standings } = outlook;
  const { verdict, suspects } = diagnosis;
  const { parts } = speaker.model.compiled;
  const rows = parts
    .map(({ part, index }) => ({ part, standing: standings[index]! }))
    .filter(({ standing }) => standing.turns > 0)
    .sort((a, b) => b.standing.share - a.standing.share);
  // What leads is a part; of its faults the likeliest speaks for it.
  const lead = suspects.find(({ part }) => part === rows[0]?.part.ref) ?? suspects[0];
  const spent = verdict.state === 'name' ? spentFuses(speaker.model, verdict, verdict.part) : [];
  const gone = goneFuses(speaker.model, verdict, readings);
  const spared = parts
    .filter(({ part, index }) => standings[index]!.state === 'spared' && !gone.has(part.ref))
    .map(({ part }) => part.ref);
  return (
    <>
      <section aria-labelledby="verdict">
        <Heading id="verdict">
          {verdict.state === 'name'
            ? `${verdict.part}: ${provedWords(verdict.fault)}`
            : verdict.state === 'noFault'
              ? 'Nothing wrong found'
              : verdict.state === 'unexplained'
                ? 'Nothing fits these readings'
                : 'Not proved yet'}
        </Heading>
        <div className="space-y-2 py-3 text-[17px]" data-testid="decide-verdict" data-state={verdict.state}>
          {verdict.state === 'name' && lead ? (
            <p className="text-[18px] font-[700]">
              {partWords(speaker, verdict.part)}: {badWords(speaker, suspects, verdict.part)}
            </p>
          ) : (
            <p>{whyWords(speaker, verdict, readings)}</p>
          )}
          {lead ? (
            <>
              <p>
                <strong className="font-[750]">For: </strong>
                {evidenceWords(speaker, lead.for, readings)}
              </p>
              <p>
                <strong className="font-[750]">Against: </strong>
                {evidenceWords(speaker, lead.against, readings)}
              </p>
            </>
          ) : null}
          {verdict.state === 'name' && lead ? (
            <div>
              <strong className="font-[750]">Proved by </strong>
              {proofLines(speaker, lead, verdict.proofs, readings).map((line) => (
                <p key={line} className="pl-4">
                  {line}
                </p>
              ))}
            </div>
          ) : null}
          {spent.map((fuse) => (
            <p key={fuse.ref} data-testid="spent">
              {spentWords(speaker, fuse)}
            </p>
          ))}
        </div>
      </section>
      <section aria-label="Doubt">
        <Heading aside="20 turns">Where the doubt sits</Heading>
        <ul>
          {rows.slice(0, 5).map(({ part, standing }) => (
            <li key={part.ref} className="flex min-h-11 items-center gap-4 border-b-[1.5px] border-rule">
              <span className="fig-bold w-24 truncate">{part.ref}</span>
              <span className="min-w-0 flex-1 truncate">{part.label}</span>
              <WindingBar count={standing.turns} />
              <span className="w-20 text-right font-[750] text-copper-ink">{inTwenty(standing.turns)}</span>
            </li>
          ))}
        </ul>
        <AlikeLine />
        {spared.length > 0 ? (
          <p className="flex items-center gap-2 py-2 text-verdi">
            <Check size={18} strokeWidth={3} aria-hidden /> Spared, and not to be bought: {spared.join(', ')}.
          </p>
        ) : null}
      </section>
    </>
  );
}
