import type { Metadata } from 'next';
import { Link } from '@/ui/Link';
import { page } from '@/features/gate/page';
import { PeopleScreen } from '@/features/people/PeopleScreen';
import { openPeople } from '@/features/people/server';
import { PageHead } from '@/ui/PageHead';

export const metadata: Metadata = { title: 'People' };
export const dynamic = 'force-dynamic';

export default page('people', async function PeoplePage(_props, who) {
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title="People" under="Who works here, and what each may do">
        <Link href="/trail" className="flex items-center px-4 text-[16px] underline underline-offset-4">
          Trail
        </Link>
      </PageHead>
      <main className="flex-1">
        <PeopleScreen people={await openPeople()} me={who.name} />
      </main>
    </div>
  );
});
