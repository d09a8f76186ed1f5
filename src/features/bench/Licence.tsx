import Link from 'next/link';
import type { licensedFor } from '@/core/safety/licensed';
import { Hold } from '@/ui/sheet';
import { licenceWords } from '@/words/en/holds';

/** Who may do what a sheet is about; shut while the site names nobody. */
export function Licence({ licence }: { licence: ReturnType<typeof licensedFor> }) {
  if (licence.is === 'free') return null;
  return (
    <div className="px-6 pt-2 max-tablet:px-3" data-testid="licence">
      <Hold>{licenceWords(licence)}</Hold>
      {licence.is === 'nobodyNamed' ? (
        <Link className="inline-flex min-h-11 items-center underline underline-offset-4" href="/policy">
          Site policy
        </Link>
      ) : null}
    </div>
  );
}
