'use client';

import type { Finding } from '@/core/draw/checkCircuit';
import { mendCircuit } from '@/core/draw/mendCircuit';
import type { Circuit } from '@/core/circuit/schema';
import { Heading, Nothing, PlainKey, Trouble } from '@/ui/sheet';
import { findingWords } from '@/words/en/drawing';

/** What is wrong or missing in a drawing, each with its mend where there is one. */
export function DrawChecks({
  circuit,
  findings,
  trouble,
  said,
  onForget,
  onMend,
}: {
  circuit: Circuit;
  findings: readonly Finding[];
  trouble: string | null;
  /** What was done last. */
  said: string | null;
  /** Begins again where a drawing of before was found on this device. */
  onForget: (() => void) | null;
  onMend: (mended: Circuit) => void;
}) {
  return (
    <section aria-labelledby="checks" className="flex min-h-0 flex-col pb-2">
      <Heading id="checks" aside={findings.length === 0 ? '' : `${findings.length} to look at`}>
        Checks
      </Heading>
      <div className="min-h-0 flex-1 overflow-y-auto">
        {onForget ? (
          <div className="flex flex-wrap items-center gap-x-3 border-b-[1.5px] border-rule py-2">
            <span className="flex-1">Kept on this device from before, not yet in the library.</span>
            <PlainKey onClick={onForget}>Begin again</PlainKey>
          </div>
        ) : null}
        {trouble ? <Trouble>{trouble}</Trouble> : null}
        {said ? (
          <p role="status" className="py-2 text-verdi">
            {said}
          </p>
        ) : null}
        {findings.length === 0 && !trouble ? (
          <Nothing>
            {circuit.parts.length === 0
              ? 'Nothing is drawn yet.'
              : 'Nothing is wrong or missing. It can be diagnosed as it stands.'}
          </Nothing>
        ) : null}
        <ul>
          {findings.map((finding) => {
            const { text, mend } = findingWords(circuit.controls, finding);
            const mended = mend ? mendCircuit(circuit, finding) : null;
            return (
              <li
                key={JSON.stringify(finding)}
                data-finding={finding.code}
                className="flex min-h-[52px] flex-wrap items-center gap-x-3 gap-y-1 border-b-[1.5px] border-rule py-1.5"
              >
                <span className="min-w-[180px] flex-1 text-[16px] leading-5">{text}</span>
                {mend && mended ? (
                  <PlainKey className="px-3! text-[15.5px]!" onClick={() => onMend(mended)}>
                    {mend}
                  </PlainKey>
                ) : null}
              </li>
            );
          })}
        </ul>
      </div>
    </section>
  );
}
