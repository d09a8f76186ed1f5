import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { isJob } from '@/features/desk/server';
import { signedHere } from '@/features/gate/page';

interface Props {
  params: Promise<{ number: string }>;
  children: ReactNode;
}

/** That there is no such job is said before anything of its pages is on the way: after that it is too late for a 404. */
export default async function JobLayout({ params, children }: Props) {
  const { number } = await params;
  if (await isMissing(number)) notFound();
  return children;
}

async function isMissing(number: string): Promise<boolean> {
  try {
    return (await signedHere()) !== null && !(await isJob(number));
  } catch {
    // The same question is the page's first too, and it fails there at once: a page says so, and a frame is made twice before it can.
    return false;
  }
}
