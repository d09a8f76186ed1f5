import { lookUp } from '@/core/codes/codeBook';
import type { LiveCode } from '@/core/codes/liveCodes';
import type { StoredBookRow } from '@/db/codeBook';
import { bookWords, codeExtras, codeName } from '@/words/en/codes';

/** A code of a bus with what this machine's book says of it. */
export function CodeRow({ code, book }: { code: LiveCode; book: StoredBookRow[] }) {
  const [match] = lookUp(book, code);
  return (
    <li className="border-b-[1.5px] border-rule py-2" data-testid="live-code">
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className="fig-bold text-[19px]">{codeName(code)}</span>
        <span className="text-[17px] font-[650]">{code.text}</span>
      </p>
      <p className="text-[15.5px] text-ink2">{codeExtras(code).join(', ')}</p>
      <p className="text-[16px]">
        {match ? (
          bookWords(match.row)
        ) : (
          <span className="text-ink2">Not in the code book of this machine.</span>
        )}
      </p>
    </li>
  );
}
