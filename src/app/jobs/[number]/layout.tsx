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
  if ((await signedHere()) && !(await isJob((await params).number))) notFound();
  return children;
}
