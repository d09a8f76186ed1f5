import { entrySchema, type Entry } from '../job/entries';

/** Writes entries of a job's log for tests, one a minute from eight o'clock on 4 February 2026, UTC. */
export function entryWriter(person = 'Tove'): (type: Entry['type'], body: object, more?: object) => Entry {
  let count = 0;
  return (type, body, more = {}) => {
    count++;
    return entrySchema.parse({
      id: `01900000-0000-7000-8000-${String(count).padStart(12, '0')}`,
      person,
      at: new Date(Date.UTC(2026, 1, 4, 8, count)).toISOString(),
      type,
      body,
      ...more,
    });
  };
}

/** What a `fix` entry says of a part that was fitted, with nothing written down but that. */
export function fitted(part: string, more: object = {}): object {
  return { part, work: 'Fitted', spare: '', serial: '', dated: '', torque: '', seals: '', ...more };
}
