import { v7 as uuidv7 } from 'uuid';
import { entryWriter, fitted } from '@/core/testing/entryWriter';
import { appendEntries } from './entries';
import { findJob, insertJob } from './jobs';
import { closePool } from './pool';
import { seedAfresh } from './testing/seedAfresh';
import { readSoundTraces } from './traces';

const CLOSED = 398;
const write = entryWriter();
const fix = () => ({ ...write('fix', fitted('Y8')), id: uuidv7() });
/** A trace that was taken after a fix, told by its first value. */
const trace = (first: number) => ({
  ...write('trace', {
    part: 'Y8',
    kind: 'dip',
    on: {},
    amps: { beginSeconds: 0, stepSeconds: 0.01, values: [first, 0.2, 0.4, 0.6, 0.7, 0.8, 0.8, 0.8] },
    source: 'clamp',
    named: null,
    phase: 'fixed',
  }),
  id: uuidv7(),
});

beforeAll(seedAfresh);
afterAll(closePool);

describe('traces of a sound machine', () => {
  it('are those after the last work of a job: an earlier one may not have mended it', async () => {
    const closed = (await findJob(CLOSED))!;
    const next = {
      id: uuidv7(),
      functionId: closed.function_id,
      title: 'Slow',
      person: 'Tove',
      openedAt: new Date(),
    };
    await insertJob(next);
    const handOver = { ...write('handOver', { note: '' }), id: uuidv7() };
    await appendEntries(closed.id, [fix(), trace(0.01), fix(), trace(0.02), handOver]);
    const sound = (await readSoundTraces(next.id)).filter(({ jobNumber }) => jobNumber === CLOSED);
    expect(sound.map(({ amps }) => amps.values[0])).toEqual([0.02]);
    // Of itself a job asks nothing.
    expect((await readSoundTraces(closed.id)).map(({ jobNumber }) => jobNumber)).not.toContain(CLOSED);
  });
});
