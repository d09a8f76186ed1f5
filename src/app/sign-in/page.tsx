import type { Metadata } from 'next';
import { cookies } from 'next/headers';
import { signedHere } from '@/features/gate/page';
import { isDemo } from '@/features/people/demo';
import { namesHere } from '@/features/people/server';
import { deviceOf } from '@/features/people/session';
import { openPolicy } from '@/features/policy/server';
import { SignInScreen } from '@/features/people/SignInScreen';
import { BrandMark } from '@/ui/Brand';

export const metadata: Metadata = { title: 'Who is here' };
export const dynamic = 'force-dynamic';

interface Props {
  searchParams: Promise<{ to?: string | string[] }>;
}

/** Where one signs in: the one page that is open to everybody. */
export default async function SignInPage({ searchParams }: Props) {
  const { to } = await searchParams;
  const jar = await cookies();
  const [who, people, device, { policy }] = await Promise.all([
    signedHere(),
    namesHere(jar),
    deviceOf(jar),
    openPolicy(),
  ]);
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <header className="flex h-14 shrink-0 items-center gap-3 border-b-2 border-ink bg-film pl-6 text-[18px] font-[750] max-tablet:pl-3">
        <BrandMark /> Spiraxis
      </header>
      <main className="flex-1 pt-2">
        <SignInScreen
          people={people}
          demo={isDemo()}
          now={who?.name ?? null}
          device={device?.name ?? ''}
          to={ownPath(to)}
          timeZone={policy.timeZone}
        />
      </main>
    </div>
  );
}

/** A path of this server's own, and nothing that a browser would take for another one. */
function ownPath(to: string | string[] | undefined): string {
  return typeof to === 'string' && /^\/(?![/\\])/.test(to) && !to.startsWith('/sign-in') ? to : '/';
}
