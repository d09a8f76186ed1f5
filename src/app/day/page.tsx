import type { Metadata } from 'next';
import { may } from '@/core/people/roles';
import { siteDay } from '@/core/units/siteTime';
import { DayPlan } from '@/features/day/DayPlan';
import { openDay } from '@/features/day/server';
import { page } from '@/features/gate/page';
import { openPolicy } from '@/features/policy/server';
import { PageHead } from '@/ui/PageHead';
import { PrintKey } from '@/ui/PrintKey';

export const metadata: Metadata = { title: 'The day' };
export const dynamic = 'force-dynamic';

/** Who does which job after which today, against the hour at which the machines go out. */
export default page('look', async function DayPage(_props, who) {
  const [day, { policy }] = await Promise.all([openDay(), openPolicy()]);
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title="The day" under={siteDay(new Date().toISOString(), policy.timeZone)}>
        <PrintKey />
      </PageHead>
      <main className="flex-1 px-6 pb-10 max-tablet:px-3">
        <DayPlan day={day} mayPlan={may(who.role, 'plan')} />
      </main>
    </div>
  );
});
