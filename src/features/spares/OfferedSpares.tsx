'use client';

import { useEffect, useState } from 'react';
import { NotAnswered, askServer } from '../askServer';
import { isBegun } from '../desk/steps';
import { PlainKey } from '@/ui/sheet';
import { otherWords } from '@/words/en/spares';
import type { Offered } from './server';
import { SpareSays } from './SpareSays';

/** What lies on the shelf for a part, the best first: why it fits or does not, where it lies, and taking it. */
export function OfferedSpares({
  job,
  part,
  chosen,
  onChoose,
}: {
  job: number;
  part: string;
  /** Number of the one that was taken; empty while none was. */
  chosen: string;
  onChoose: (number: string) => void;
}) {
  const [state, setState] = useState<{ offered: readonly Offered[] } | { trouble: string } | null>(null);
  const begun = isBegun(job);
  useEffect(() => {
    if (begun) return;
    const left = new AbortController();
    askServer<Offered[]>(`/api/jobs/${job}/spares?part=${encodeURIComponent(part)}`, {
      signal: left.signal,
    }).then(
      (offered) => setState({ offered }),
      (error: unknown) => {
        if (left.signal.aborted) return;
        // The shelf is a help, not a gate: the number can be typed.
        setState({
          trouble:
            error instanceof NotAnswered && error.status > 0
              ? error.message
              : 'The shelf cannot be seen from here now.',
        });
      },
    );
    return () => left.abort();
  }, [job, part, begun]);
  if (begun)
    return <p className="py-1 text-[16px] text-ink2">The shelf can be seen once the server has this job.</p>;
  if (state === null) return <p className="py-1 text-[16px] text-ink2">Looking on the shelf …</p>;
  if ('trouble' in state) return <p className="py-1 text-[16px] text-copper-ink">{state.trouble}</p>;
  if (state.offered.length === 0)
    return <p className="py-1 text-[16px] text-ink2">Nothing of this kind lies on the shelf.</p>;
  const others = state.offered.filter(({ fit }) => fit === 'doesNot');
  const row = (one: Offered) => <OfferedRow key={one.number} one={one} chosen={chosen} onChoose={onChoose} />;
  return (
    <>
      {others.length === state.offered.length ? (
        <p className="py-1 text-[16px] text-copper-ink">Nothing on the shelf fits.</p>
      ) : null}
      <ul className="border-t-[1.5px] border-rule" aria-label="On the shelf">
        {state.offered.filter(({ fit }) => fit !== 'doesNot').map(row)}
      </ul>
      {others.length > 0 ? (
        <details>
          <summary className="flex min-h-11 cursor-pointer items-center text-[16px] underline underline-offset-4">
            {otherWords(others.length)}
          </summary>
          <ul>{others.map(row)}</ul>
        </details>
      ) : null}
    </>
  );
}

/** One spare: why it does or does not, where it lies, and taking it. */
function OfferedRow({
  one,
  chosen,
  onChoose,
}: {
  one: Offered;
  chosen: string;
  onChoose: (number: string) => void;
}) {
  const { number, fit, stock } = one;
  return (
    <li
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b-[1.5px] border-rule py-1.5"
      data-testid="offered"
      data-fit={fit}
    >
      <SpareSays one={one} />
      {fit === 'doesNot' || stock < 1 ? null : (
        <PlainKey
          className="px-3! text-[15.5px]!"
          aria-pressed={chosen === number}
          onClick={() => onChoose(chosen === number ? '' : number)}
        >
          {chosen === number ? 'Taken' : 'Take it'}
        </PlainKey>
      )}
    </li>
  );
}
