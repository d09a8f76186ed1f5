const KEY = 'spiraxis-person-here';

/** Writes down who is signed in in this browser, as the last page of the server's said it; null: nobody. */
export function rememberPerson(name: string | null): void {
  try {
    if (name === null) localStorage.removeItem(KEY);
    else localStorage.setItem(KEY, name);
  } catch {
    // A browser that keeps nothing has no job begun in it that anybody could open.
  }
}

/** Who is signed in here, for a page that no server made; null where nobody is, or nothing is known. */
export function personHere(): string | null {
  try {
    return localStorage.getItem(KEY);
  } catch {
    return null;
  }
}
