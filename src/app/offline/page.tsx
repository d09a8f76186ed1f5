import type { Metadata } from 'next';
import { KeptHere } from '@/features/offline/KeptHere';
import { BrandMark } from '@/ui/Brand';

export const metadata: Metadata = { title: 'No network' };
export const dynamic = 'force-dynamic';

/** What stands where a page would that is not on this device; kept with the program, and nobody's. */
export default function OfflinePage() {
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <header className="flex h-14 shrink-0 items-center gap-3 border-b-2 border-ink bg-film pl-6 text-[18px] font-[750] max-tablet:pl-3">
        <BrandMark /> Spiraxis
      </header>
      <main className="flex-1">
        <KeptHere />
      </main>
    </div>
  );
}
