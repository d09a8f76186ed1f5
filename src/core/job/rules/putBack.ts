import type { Setup, Test } from '../../circuit/schema';
import type { JobState, LedgerLine } from '../reduceJob';

/** What goes back to how it was. */
export type PutBack = Pick<
  Setup,
  'pulled' | 'unplugged' | 'removed' | 'swapped' | 'lifted' | 'open' | 'plugged' | 'jumpers' | 'energised'
>;

/** What a reading's set-up leaves behind it that is no line of the ledger: it shows by itself. */
const SHOWS_BY_ITSELF = ['pulled', 'unplugged', 'removed', 'swapped'] as const;
const IN_LEDGER = ['unplugged', 'lifted', 'open', 'plugged', 'jumpers', 'energised'] as const;

/**
 * What stands in the machine after the last reading, and by the ledger, that a test is taken without, and the lines of the ledger that say
 * so. What was found in the machine is no business of a test: it is out when somebody takes it out.
 */
export function toPutBack(
  { ledger, readings, after }: Pick<JobState, 'ledger' | 'readings' | 'after'>,
  { setup }: Pick<Test, 'setup'>,
): { back: PutBack; lines: LedgerLine[] } {
  const last = [...readings, ...after].reduce<(typeof readings)[number] | null>(
    (latest, one) => (latest && latest.position > one.position ? latest : one),
    null,
  );
  const back: Record<string, unknown[]> = {};
  const add = (key: keyof PutBack, standing: Setup) => {
    const wanted = new Set((setup[key] ?? []).map(sameThing));
    const off = (standing[key] ?? []).filter((one) => !wanted.has(sameThing(one)));
    const known = new Set((back[key] ?? []).map(sameThing));
    const more = off.filter((one) => !known.has(sameThing(one)));
    if (more.length > 0) back[key] = [...(back[key] ?? []), ...more];
    return off.length > 0;
  };
  if (last) for (const key of SHOWS_BY_ITSELF) add(key, last.reading.setup);
  const lines = ledger.filter(({ entry, out }) => {
    const { puts, found } = entry.body;
    if (out || found || !puts) return false;
    return IN_LEDGER.map((key) => add(key, puts)).some(Boolean);
  });
  return { back, lines };
}

/** Equal for one thing however it is written: a bridge has no direction. */
function sameThing(one: unknown): string {
  if (typeof one === 'string') return one;
  return JSON.stringify(Array.isArray(one) ? [...(one as string[])].sort() : one);
}
