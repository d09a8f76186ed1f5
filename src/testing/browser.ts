import { NextRequest } from 'next/server';
import { DELETE, POST } from '@/app/api/session/route';
import { POST as POST_WITNESS } from '@/app/api/session/witness/route';

/**
 * A browser with a jar of cookies, for tests that ask routes and actions as somebody: signs in through the route that users
 * sign in by. Actions find the jar through the stand-in for `next/headers` below.
 */
const jar = new Map<string, string>();

export const cookieHeader = () => [...jar].map(([name, value]) => `${name}=${value}`).join('; ');

export function forgetCookies(): void {
  jar.clear();
}

/** Takes up what a response sets. */
function keepCookies(response: Response): void {
  for (const line of response.headers.getSetCookie()) {
    const [pair] = line.split(';');
    const at = pair!.indexOf('=');
    const [name, value] = [pair!.slice(0, at), decodeURIComponent(pair!.slice(at + 1))];
    if (value === '') jar.delete(name);
    else jar.set(name, value);
  }
}

/** Posts to the route where one signs in, with what it answers. */
export async function trySignIn(asked: object, more: Record<string, string> = {}): Promise<Response> {
  const answer = await POST(
    new NextRequest('http://127.0.0.1/api/session', {
      method: 'POST',
      body: JSON.stringify(asked),
      headers: { cookie: cookieHeader(), 'content-type': 'application/json', ...more },
    }),
    { params: Promise.resolve({}) },
  );
  keepCookies(answer);
  return answer;
}

/** Signs out through the route that users sign out by. */
export async function signOutHere(): Promise<void> {
  const request = new NextRequest('http://127.0.0.1/api/session', {
    method: 'DELETE',
    headers: { cookie: cookieHeader() },
  });
  keepCookies(await DELETE(request, { params: Promise.resolve({}) }));
}

/** A second person gives a PIN beside who is signed in. */
export async function askBeside(name: string, pin: string): Promise<Response> {
  const request = new NextRequest('http://127.0.0.1/api/session/witness', {
    method: 'POST',
    body: JSON.stringify({ name, pin }),
    headers: { cookie: cookieHeader() },
  });
  return POST_WITNESS(request, { params: Promise.resolve({}) });
}

/** Signs one of the demonstration's people in; throws where that did not do. */
export async function signInAs(name: string): Promise<void> {
  const answer = await trySignIn({ name, demo: true });
  if (answer.status !== 200) throw new Error(`${name} could not sign in: ${await answer.text()}`);
}

/** What stands in for `next/headers` where no page asks. */
export const nextHeaders = {
  cookies: () =>
    Promise.resolve({ get: (name: string) => (jar.has(name) ? { name, value: jar.get(name)! } : undefined) }),
  headers: () => Promise.resolve(new Headers({ 'x-forwarded-for': '127.0.0.1', 'x-request-id': 'test' })),
};
