import { z } from 'zod';

/** A JSON column: the driver gives text or a value, by server. */
export const jsonColumn = <S extends z.ZodType>(schema: S) =>
  z.preprocess((value) => (typeof value === 'string' ? (JSON.parse(value) as unknown) : value), schema);
