import { headers } from 'next/headers';
import { notFound, redirect } from 'next/navigation';
import type { ReactNode } from 'react';
import { signedHere } from '@/features/gate/page';
import { codeWritten } from '@/features/machines/server';

interface Props {
  params: Promise<{ code: string }>;
  children: ReactNode;
}

/** A machine is called what it is called: who typed its code in small letters is taken to the page that says it right. */
export default async function MachineLayout({ params, children }: Props) {
  if (!(await signedHere())) return children;
  const { code } = await params;
  const written = await codeWritten(decodeURIComponent(code));
  if (written === null) notFound();
  const here = (await headers()).get('x-path') ?? '/';
  const right = here.replace(/^\/machines\/[^/?]+/, `/machines/${encodeURIComponent(written)}`);
  if (decodeURIComponent(code) !== written && right !== here) redirect(right);
  return children;
}
