import { Link } from '@/ui/Link';
import type { SpareRow } from '@/db/spares';
import { KIND_NAMES } from '@/words/en/drawing';
import { ratingsWords } from '@/words/en/spares';

/** Spares of the shelf: number, what it is by its label, where it lies, and how many there are. */
export function ShelfRows({ spares }: { spares: readonly SpareRow[] }) {
  return (
    <ul>
      {spares.map(({ id, number, name, kind, ratings, fitting, place, stock, minimum, on_the_way }) => (
        <li key={id} className="border-b-[1.5px] border-rule" data-testid="spare">
          <Link
            href={`/parts/${encodeURIComponent(number)}`}
            className="grid min-h-[56px] items-center gap-x-4 py-1 hover:bg-film tablet:grid-cols-[110px_minmax(0,1fr)_minmax(0,160px)_120px]"
          >
            <strong className="fig-bold text-[17px] break-words">{number}</strong>
            <span className="min-w-0 break-words">
              {name}
              <span className="block text-[15.5px] text-ink2">
                {KIND_NAMES[kind]}, {ratingsWords(ratings, fitting)}
              </span>
            </span>
            <span className="min-w-0 text-[15.5px] break-words text-ink2">{place || 'no place said'}</span>
            <span className={`text-[16px] ${stock < minimum ? 'font-[680] text-copper-ink' : ''}`}>
              <span className="fig-bold">{stock}</span>
              {minimum > 0 ? `, ${minimum} at least` : ''}
              {on_the_way > 0 ? (
                <span className="block text-[15px] text-ink2">{on_the_way} on the way</span>
              ) : null}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}
