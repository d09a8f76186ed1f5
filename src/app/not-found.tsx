import { Link } from '@/ui/Link';

export default function NotFound() {
  return (
    <main className="px-6 py-16">
      <h1 className="text-[23px] font-[800]">There is nothing here</h1>
      <p className="mt-3">No job has this number, or the page has another address.</p>
      <Link href="/" className="mt-6 inline-flex min-h-11 items-center underline underline-offset-4">
        To the shed
      </Link>
    </main>
  );
}
