import type { BookRow } from './bookRow';
import type { FoundCode } from './describe';

/** What a book says of a code: the line, and the failure mode that it amounts to (`null`: the book cannot say). */
export interface BookMatch {
  row: BookRow;
  means: number | null;
}

/** What tells a code from another: a found one, or one in a job's record. */
export type NamedCode = Pick<FoundCode, 'component' | 'failureMode'> & { system: string };

/** A code's name in a machine's book and past jobs; the same for the same code in whatever notation a pair came. */
export function codeKey({ component, failureMode }: Pick<FoundCode, 'component' | 'failureMode'>): string {
  const name = String(component).toUpperCase();
  return failureMode === undefined ? name : `${name}-${String(failureMode).toUpperCase()}`;
}

/** Lines of a book that a code falls under: those for its very mode first. */
export function lookUp<R extends BookRow>(
  book: readonly R[],
  found: NamedCode,
): { row: R; means: number | null }[] {
  const pattern = `${found.component}-${found.failureMode}`;
  return book
    .filter(({ system, code, mode }) => {
      // A bare pair may be any notation that is written so, a blink pattern too.
      const alike =
        found.system === 'pair'
          ? system !== 'OBD' && system !== 'UDS'
          : system === found.system || (found.system === 'OBD' && system === 'UDS');
      if (!alike) return false;
      if (system === 'blink') return mode === '' && code === pattern;
      return sameNumber(code, found.component) && (mode === '' || sameNumber(mode, found.failureMode ?? ''));
    })
    .sort((a, b) => Number(a.mode === '') - Number(b.mode === ''))
    .map((row) => ({ row, means: row.means ?? meansOf(found) }));
}

/** "05" and 5 are the same number; "P0045" is itself. */
function sameNumber(text: string, value: string | number): boolean {
  const plain = (one: string | number) =>
    String(one)
      .toUpperCase()
      .replace(/^0+(?=\d+$)/, '');
  return plain(text) === plain(value);
}

/**
 * A failure type byte (SAE J2012-DA) as the failure mode a driver would have set. A rough bridge and no standard; a
 * book's own `means` goes before it. Source: the project's fault-code reference, section 9.
 */
const MODE_OF_TYPE: Readonly<Record<string, number>> = {
  '11': 6,
  '12': 3,
  '13': 5,
  '16': 4,
  '17': 3,
  '18': 5,
  '19': 6,
  '1F': 2,
  '2F': 2,
};

/** The failure mode that a code amounts to by itself. */
export function meansOf({ system, failureMode }: NamedCode): number | null {
  if (system === 'UDS') return MODE_OF_TYPE[String(failureMode)] ?? null;
  return typeof failureMode === 'number' ? failureMode : null;
}
