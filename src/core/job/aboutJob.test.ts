import { aboutJob } from './aboutJob';
import type { Entry } from './entries';
import { reduceJob } from './reduceJob';

let ids = 0;
const entry = (type: string, body: object, supersedes?: string): Entry =>
  ({
    id: `01a00000-0000-7000-8000-${String(++ids).padStart(12, '0')}`,
    at: '2026-02-04T08:00:00.000Z',
    person: 'Tove',
    type,
    body,
    ...(supersedes ? { supersedes } : {}),
  }) as Entry;
const looked = () => entry('looked', { check: 'plug X3 seated', finding: 'good' });

describe('what of a log says what the job is about', () => {
  const first = entry('complaint', { words: 'Fan dead', weather: 'rain' });
  const taken = entry('joined', { functionName: 'Horn' });
  const log = [
    first,
    looked(),
    entry('complaint', { words: 'Fan dead when cold', weather: 'frost' }, first.id),
    taken,
    looked(),
    entry('joined', { functionName: 'Beacon' }),
    entry('withdrawal', { reason: 'not asked about' }, taken.id),
    entry('redrawn', { version: 2 }),
    looked(),
  ];

  it('is the same as the whole log says, at every length of it', () => {
    for (let length = 0; length <= log.length; length++) {
      const part = log.slice(0, length);
      const about = ({ complaint, weather, joined, redrawn }: ReturnType<typeof reduceJob>) => ({
        complaint,
        weather,
        joined,
        redrawn,
      });
      expect(about(reduceJob(aboutJob(part)))).toEqual(about(reduceJob(part)));
    }
    expect(reduceJob(aboutJob(log))).toMatchObject({ weather: 'frost', redrawn: 2 });
    expect(reduceJob(aboutJob(log)).joined).toHaveLength(1);
  });

  it('is short however long the log is', () => {
    expect(aboutJob([...log, ...Array.from({ length: 5000 }, looked)])).toHaveLength(6);
  });
});
