import { Search } from 'lucide-react';
import Form from 'next/form';
import { Link, LINE_LINK } from '@/ui/Link';

/** Finds jobs by any word; the address holds what is asked. */
export function ShedFilter({ q, show }: { q: string; show: 'open' | 'closed' }) {
  const other = show === 'open' ? 'closed' : 'open';
  return (
    <div className="mx-6 flex flex-wrap items-center gap-4 border-b-[1.5px] border-rule py-2 max-tablet:mx-3">
      <Form
        action="/"
        prefetch={false}
        role="search"
        className="flex min-w-0 flex-1 items-center gap-2"
        key={`${q}-${show}`}
      >
        {show === 'closed' ? <input type="hidden" name="show" value="closed" /> : null}
        <label className="flex min-h-11 max-w-[460px] min-w-0 flex-1 items-center gap-2 border-[1.5px] border-edge bg-sheet px-3">
          <Search size={18} aria-hidden />
          <input
            name="q"
            type="search"
            defaultValue={q}
            maxLength={100}
            placeholder="find by any words"
            aria-label="Find a job"
            data-find
            className="min-w-0 flex-1 bg-transparent text-[17px] outline-none placeholder:text-ink2"
          />
        </label>
        <button type="submit" className="min-h-11 border-[1.5px] border-edge bg-sheet px-4 font-[650]">
          Find
        </button>
      </Form>
      <Link
        href={`/?${new URLSearchParams({ ...(q ? { q } : {}), ...(other === 'closed' ? { show: 'closed' } : {}) })}`}
        className={LINE_LINK}
      >
        {other === 'closed' ? 'Handed over' : 'In hand'}
      </Link>
    </div>
  );
}
