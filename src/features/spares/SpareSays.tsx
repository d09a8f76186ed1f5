import { FIT_WORDS } from '@/words/en/spares';
import type { Offered } from './server';

const TONE = { fits: 'text-verdi', askLabel: 'text-copper-ink', doesNot: 'text-stamp' } as const;

/** What a spare is, why it does or does not, and where it lies. */
export function SpareSays({ one: { number, name, place, stock, fit, says, differs } }: { one: Offered }) {
  return (
    <>
      <span className="min-w-0 flex-1 basis-[260px] break-words text-[16px]">
        <strong className="fig-bold">{number}</strong> {name}, {says}
        <span className={`block text-[15.5px] font-[620] ${TONE[fit]}`}>
          {FIT_WORDS[fit]}
          {differs.length > 0 ? `: ${differs.join('; ')}` : ''}
        </span>
      </span>
      <span className="text-[15.5px] text-ink2">
        {stock > 0 ? `${stock} in ${place || 'the shed'}` : 'none left'}
      </span>
    </>
  );
}
