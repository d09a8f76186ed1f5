/**
 * Signs somebody of the demonstration in, as a device of its own; gives the `cookie` header that says so from then on.
 *
 * @param {string} base where the application is
 * @param {string} name
 * @returns {Promise<string>}
 */
export async function signInCookie(base, name) {
  const answer = await fetch(`${base}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name, demo: true }),
  });
  if (!answer.ok)
    throw new Error(`${name} could not sign in at ${base}: ${answer.status} ${await answer.text()}`);
  return answer.headers
    .getSetCookie()
    .map((line) => line.split(';')[0])
    .join('; ');
}
