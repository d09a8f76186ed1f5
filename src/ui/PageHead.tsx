import type { ReactNode } from 'react';
import { Brand } from './Brand';

/** The head of a page that is no job: brand, title, a line under it, and what can be done here. */
export function PageHead({
  title,
  under,
  children,
}: {
  title: string;
  under?: string;
  children?: ReactNode;
}) {
  return (
    <header className="sticky top-0 z-20 flex h-14 shrink-0 items-stretch border-b-2 border-ink bg-film pl-6 max-tablet:h-auto max-tablet:min-h-14 max-tablet:pl-3">
      <Brand />
      <div className="flex min-w-0 flex-1 flex-col justify-center border-l border-rule px-4 max-tablet:px-3 max-tablet:py-1">
        {/* On a phone it breaks: what it tells stands last as often as first. */}
        <h1
          className="truncate text-[17px] leading-5 font-[750] max-tablet:line-clamp-2 max-tablet:whitespace-normal"
          title={title}
        >
          {title}
        </h1>
        {under ? (
          <p className="truncate text-[15px] leading-5 text-ink2 max-tablet:line-clamp-2 max-tablet:whitespace-normal">
            {under}
          </p>
        ) : null}
      </div>
      {children}
    </header>
  );
}
