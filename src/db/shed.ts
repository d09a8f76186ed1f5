import { AsyncLocalStorage } from 'node:async_hooks';

/**
 * Many sheds on one server, each in a schema of its own: which of them a piece of work is about. What one shed's work keeps
 * in the process is kept apart from every other's; what is kept here is the only state of the process that code on the
 * server may have, so that nobody has to remember it.
 */

/** Without many sheds there is one, and this is what it is called. */
const THE_ONE = '';
/** As the first label of a host name: it is a part of the schema's name too, and no two make the same one. */
const NAME = /^[a-z0-9](?:[a-z0-9-]{0,30}[a-z0-9])?$/;

/** What the process holds, by name: one, however many times a module is built into it. */
interface Held {
  spiraxisShed?: AsyncLocalStorage<string>;
  spiraxisHeld?: Map<string, unknown>;
}
const held = globalThis as typeof globalThis & Held;
/** The server in front sets it, from the name that it was called by. */
const current = (held.spiraxisShed ??= new AsyncLocalStorage<string>());
const things = (held.spiraxisHeld ??= new Map<string, unknown>());

/** Whether this server carries many sheds. */
export function manySheds(): boolean {
  return (process.env.SPIRAXIS_SHEDS ?? '') !== '';
}

export function isShedName(name: string): boolean {
  return NAME.test(name);
}

/**
 * The shed that is worked for. Throws where there are many and nobody said which: what would go to the wrong shed goes
 * nowhere.
 */
export function shedNow(): string {
  if (!manySheds()) return THE_ONE;
  const shed = current.getStore();
  if (shed === undefined || !isShedName(shed)) throw new Error('nobody said which shed this is about');
  return shed;
}

/** Does something for one shed, and all that follows from it. */
export function inShed<T>(shed: string, work: () => T): T {
  return current.run(shed, work);
}

/** Its schema, beside the one that the database's address names. */
export function schemaOf(base: string, shed: string): string {
  return shed === THE_ONE ? base : `${base}_${shed}`;
}

/** An id as it is known in the whole process: of two sheds that were filled alike, the same id means two things. */
export function inThisShed(id: string): string {
  return `${shedNow()} ${id}`;
}

/** One thing for the whole process, whatever shed is worked for: nothing of a shed may be known by it. */
export function ofProcess<T>(name: string, make: () => T): T {
  if (!things.has(name)) things.set(name, make());
  return things.get(name) as T;
}

/** One thing for each shed, made when it is first asked for. */
export function ofShed<T extends object>(name: string, make: () => T): () => T {
  const each = ofProcess(`${name} of each shed`, () => new Map<string, T>());
  return () => {
    const shed = shedNow();
    let known = each.get(shed);
    if (!known) each.set(shed, (known = make()));
    return known;
  };
}
