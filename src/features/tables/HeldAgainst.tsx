import { Link } from '@/ui/Link';
import type { HeldRow } from '@/core/sheets/heldAgainst';
import { heldWords } from '@/words/en/heldAgainst';

/** The limits that something was judged by, each with its source and the way to where the shop sets it. */
export function HeldAgainst({ rows }: { rows: readonly HeldRow[] }) {
  if (rows.length === 0) return null;
  return (
    <ul className="py-1 text-[15.5px] leading-[21px]" data-testid="held-against">
      {rows.map((row) => (
        <li key={`${row.table} ${row.row}`}>
          {heldWords(row)}{' '}
          <Link className="underline underline-offset-4 print:hidden" href={`/tables#${row.table}`}>
            Tables
          </Link>
        </li>
      ))}
    </ul>
  );
}
