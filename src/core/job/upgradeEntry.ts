import { parseReading } from '../units/parseReading';

type Fields = Record<string, unknown>;
const isFields = (value: unknown): value is Fields => typeof value === 'object' && value !== null;

/** Which form of entries is today's: counted up with every change below, since browsers keep long logs as they came. */
export const ENTRY_FORM = 2;

/** An entry of an older log in today's form; whatever is of today's form already, or of no form known, comes back as it is. */
export function upgradeEntry(entry: unknown): unknown {
  if (!isFields(entry) || entry.type !== 'isolation' || !isFields(entry.body)) return entry;
  const { proved } = entry.body;
  if (!isFields(proved) || typeof proved.knownBefore !== 'string') return entry;
  const work = Array.isArray(proved.work) ? (proved.work as unknown[]).filter(isFields) : [];
  return {
    ...entry,
    body: {
      ...entry.body,
      proved: {
        meter: '',
        knownBefore: measuredOf(proved.knownBefore),
        work: work.map(({ place, value }) => {
          const [from = '', ...to] = String(place).split(' to ');
          return { from, to: to.join(' to '), measured: measuredOf(value) };
        }),
        knownAfter: measuredOf(proved.knownAfter),
      },
    },
  };
}

/** Until the proof kept values it kept words; one that says no number is kept as typed, with a value that proves nothing. */
function measuredOf(words: unknown): { value: number; unit: 'V'; typed: string } {
  const typed = String(words);
  const read = parseReading(typed);
  const value = read && typeof read.value === 'number' ? read.value : Number.MAX_VALUE;
  return { value, unit: 'V', typed };
}
