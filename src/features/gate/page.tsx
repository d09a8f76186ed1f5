import 'server-only';
import type { Metadata } from 'next';
import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache, type ReactNode } from 'react';
import type { Deed } from '@/core/people/roles';
import { wasJustAway } from '@/db/databaseAway';
import { TurnedAway } from '@/ui/TurnedAway';
import { signedIn, type Signed } from '../people/session';
import { MayNot } from '../people/MayNot';
import { askingOf, whileAsking } from './asking';
import { Refused } from './failure';
import { judged } from './who';

/** Who is signed in, asked once a request however many pieces of a page want to know. */
export const signedHere = cache(async (): Promise<Signed | null> => signedIn(await cookies()));

/**
 * A page of the shed, for who may see it. Who is not signed in is taken to do that and then back here; who is and may not
 * is told so.
 */
export function page<P = object>(
  deed: Deed,
  make: (props: P, who: Signed) => ReactNode | Promise<ReactNode>,
): (props: P) => Promise<ReactNode> {
  const guarded = async (props: P) => {
    const from = await headers();
    const here = from.get('x-path') ?? '/';
    const who = await signedHere();
    if (!who) redirect(`/sign-in?to=${encodeURIComponent(here)}`);
    if (who.oneTime && deed !== 'own') redirect('/account');
    return whileAsking(
      askingOf((name) => from.get(name), who.name),
      async () => {
        try {
          await judged(deed, who, here);
        } catch (error) {
          if (error instanceof Refused) return <MayNot message={error.message} />;
          throw error;
        }
        try {
          return await make(props, who);
        } catch (error) {
          if (error instanceof Refused)
            return <TurnedAway title="Not made" message={error.message} again={here} />;
          throw error;
        }
      },
    );
  };
  known.set(guarded, deed);
  return guarded;
}

/** A page's title, where it says something of the shed: nothing to who is not signed in, nor where asking would be in vain. */
export function titled<P>(make: (props: P) => Promise<Metadata>): (props: P) => Promise<Metadata> {
  return async (props) => {
    // A page that failed is made once more, as the page that says so: nobody waits for the database a second time.
    if (wasJustAway()) return {};
    return (await signedHere()) ? make(props) : {};
  };
}

const known = new WeakMap<object, Deed>();

/** What one has to be for a page: for a test that looks at all of them. */
export function deedOfPage(guarded: object): Deed | undefined {
  return known.get(guarded);
}
