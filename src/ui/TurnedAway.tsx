import type { ReactNode } from 'react';
import { Link, LINK } from '@/ui/Link';
import { PageHead } from '@/ui/PageHead';

/** Instead of a page: why it is not shown, and the ways on from here. */
export function TurnedAway({
  title,
  message,
  again,
  children,
}: {
  title: string;
  message: string;
  /** The page's own address, where it may come another time. */
  again?: string;
  children?: ReactNode;
}) {
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title={title} />
      <main className="px-6 py-8 max-tablet:px-3">
        <p className="max-w-[60ch] text-[19px]">{message}</p>
        <p className="flex gap-6 py-3">
          {again === undefined ? null : (
            <a href={again} className={LINK}>
              Ask again
            </a>
          )}
          <Link href="/" className={LINK}>
            Back to the shed
          </Link>
        </p>
        {children}
      </main>
    </div>
  );
}
