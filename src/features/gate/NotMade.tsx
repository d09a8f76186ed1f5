import { Link, LINK } from '@/ui/Link';
import { PageHead } from '@/ui/PageHead';

/** A page that the server did not make, with its reason. */
export function NotMade({ message, here }: { message: string; here: string }) {
  return (
    <div className="flex min-h-dvh flex-col bg-sheet">
      <PageHead title="Not made" />
      <main className="px-6 py-8 max-tablet:px-3">
        <p className="max-w-[60ch] text-[19px]">{message}</p>
        <p className="flex gap-6 py-3">
          <a href={here} className={LINK}>
            Ask again
          </a>
          <Link href="/" className={LINK}>
            Back to the shed
          </Link>
        </p>
      </main>
    </div>
  );
}
