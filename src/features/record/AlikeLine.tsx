'use client';

import { Link } from '@/ui/Link';
import { useDesk } from '../desk/desk';

/** What was found before in functions drawn as this one, and whether the doubt counts it. */
export function AlikeLine() {
  const { alike, experience } = useDesk().job;
  if (!alike) return null;
  const counts = Object.keys(experience.odds).length > 0;
  return (
    <p className="py-2 text-[16px]" data-testid="alike-line">
      In functions drawn like this {alike.words}.{' '}
      {counts ? 'The doubt counts that. ' : 'The doubt does not count that in this job. '}
      <Link href="/record" className="underline underline-offset-4">
        What usually breaks
      </Link>
    </p>
  );
}
