import { NextResponse, type NextRequest } from 'next/server';
import { Refused } from '@/features/gate/failure';
import { jsonOf, openRoute, route } from '@/features/gate/route';
import { signInSchema } from '@/features/people/schema';
import { signInWith, signOut } from '@/features/people/server';
import { signedOutCookie } from '@/features/people/session';

const LARGEST = 4000;

/** Signs somebody in on this device; whoever was before is signed out. */
export const POST = openRoute(async (request: NextRequest) => {
  const asked = signInSchema.safeParse(await jsonOf(request, LARGEST));
  if (!asked.success) throw new Refused(400, 'bad-input', 'Give a name, and a PIN or a password.');
  const { answer, cookies } = await signInWith(asked.data, request.cookies);
  const response = NextResponse.json(answer, { headers: { 'cache-control': 'no-store' } });
  for (const { name, value, options } of cookies) response.cookies.set(name, value, options);
  return response;
});

/** Who is signed in here; 401 where nobody is. */
export const GET = route('own', (_request, _params, { name, role }) =>
  Promise.resolve(NextResponse.json({ name, role }, { headers: { 'cache-control': 'no-store' } })),
);

/** Signs out. */
export const DELETE = route('own', async (_request, _params, who) => {
  await signOut(who);
  const response = NextResponse.json({ signedOut: true }, { headers: { 'cache-control': 'no-store' } });
  const { name, value, options } = signedOutCookie();
  response.cookies.set(name, value, options);
  return response;
});
