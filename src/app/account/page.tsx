import type { Metadata } from 'next';
import { page } from '@/features/gate/page';
import { AccountScreen } from '@/features/people/AccountScreen';
import { PageHead } from '@/ui/PageHead';
import { personWords } from '@/words/en/people';

export const metadata: Metadata = { title: 'Your account' };
export const dynamic = 'force-dynamic';

export default page('own', function AccountPage(_props, who) {
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title={who.name} under={personWords(who.role, who.licences)} />
      <main className="flex-1">
        <AccountScreen
          name={who.name}
          oneTime={who.oneTime}
          hasPassword={who.hasPassword}
          hasPin={who.hasPin}
          hasCode={who.hasCode}
          device={who.device.name}
          trusted={who.device.trusted}
          feed="/api/retests.ics"
        />
      </main>
    </div>
  );
});
