import { InputError } from '../circuit/inputError';
import { checked } from '../circuit/parse';
import { sheetSchema, type Sheet } from './sheets';

const NAMES = sheetSchema.options.map(({ shape }) => shape.sheet.value);

/** Checks a sheet's document. Throws {@link InputError} naming the first field that is wrong. */
export function parseSheet(data: unknown): Sheet {
  const name = (data as { sheet?: unknown } | null)?.sheet;
  if (typeof data === 'object' && data !== null && !(NAMES as unknown[]).includes(name))
    throw new InputError(
      'sheet',
      `${name === undefined ? 'nothing given' : `${JSON.stringify(name)} is no sheet`}; use one of ${NAMES.join(', ')}`,
    );
  return checked(sheetSchema, data, 'sheet document');
}
