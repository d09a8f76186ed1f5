'use client';

import { Link } from '@/ui/Link';
import { usePathname, useRouter } from 'next/navigation';
import { createContext, useContext, type ReactNode } from 'react';
import { may, type Deed, type Person } from '@/core/people/roles';
import { personWords } from '@/words/en/people';

/** Who is signed in, as a page knows them. */
export type Who = Person;

const WhoContext = createContext<Who | null>(null);

export function WhoProvider({ who, children }: { who: Who | null; children: ReactNode }) {
  return <WhoContext value={who}>{children}</WhoContext>;
}

/** Who is signed in here; null on the page where one signs in. */
export function useWho(): Who | null {
  return useContext(WhoContext);
}

/** Whether who is signed in may do something. What is shown goes by it; what is done the server judges anew. */
export function useMay(deed: Deed): boolean {
  const who = useWho();
  return who !== null && may(who.role, deed);
}

/** The name that everything here is written in, and the way to change it. */
export function WhoKey() {
  const who = useWho();
  const path = usePathname();
  const router = useRouter();
  if (!who) return null;
  const after = (address: string) => `/sign-in?to=${encodeURIComponent(address)}`;
  return (
    <Link
      href={after(path)}
      onNavigate={(event) => {
        // Back to the very step that the tablet was handed over at.
        event.preventDefault();
        router.push(after(`${path}${window.location.search}`));
      }}
      aria-label={`Signed in: ${who.name}, ${personWords(who.role, who.licences)}. Change person`}
      title={`${who.name}, ${personWords(who.role, who.licences)}: change person`}
      className="my-1.5 mr-3 flex min-w-11 shrink-0 max-tablet:mr-2 max-tablet:px-0 items-center justify-center border-[1.5px] border-edge bg-sheet px-2 text-[15.5px] font-[680] print:hidden"
    >
      <span className="max-w-[92px] truncate max-tablet:hidden">{who.name}</span>
      <span className="tablet:hidden" aria-hidden>
        {[...who.name].slice(0, 2).join('')}
      </span>
    </Link>
  );
}
