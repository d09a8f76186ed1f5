import { Link, LINK } from '@/ui/Link';
import { PageHead } from '@/ui/PageHead';
import { Hold } from '@/ui/sheet';

/** A page that somebody of this role does not see. */
export function MayNot({ message }: { message: string }) {
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title="Not yours to do" />
      <main className="px-6 py-8 max-tablet:px-3">
        <p className="max-w-[60ch] text-[19px]">{message}</p>
        <p className="py-3">
          <Link href="/" className={LINK}>
            Back to the shed
          </Link>
        </p>
        <Hold>Nobody signs for somebody else.</Hold>
      </main>
    </div>
  );
}
