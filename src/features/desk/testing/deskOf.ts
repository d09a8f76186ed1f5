import { CircuitModel } from '@/core/circuit/model';
import type { Circuit } from '@/core/circuit/schema';
import type { Entry } from '@/core/job/entries';
import { findLanes } from '@/core/path/lanes';
import type { Desk } from '../desk';
import { JobLog, type LogTransport } from '../log/JobLog';
import type { WaitingStore } from '../log/waitingStore';
import { somebody } from '@/core/testing/signedAs';

export const AWAY: LogTransport = {
  send: () => Promise.resolve(null),
  upload: () => Promise.resolve({ trouble: 'no server in this test' }),
  follow: () => () => undefined,
};
const NOWHERE: WaitingStore = {
  load: () => Promise.resolve([]),
  put: () => Promise.resolve(),
  remove: () => Promise.resolve(),
  tell: () => undefined,
  follow: () => () => undefined,
};

/** A log that lives in this test alone: written to, looked at, never sent. */
export function logOf(
  person = 'Tove',
  entries: readonly Entry[] = [],
  transport: LogTransport = AWAY,
): JobLog {
  let count = 0;
  return new JobLog(
    entries.map((entry, at) => ({ number: at + 1, entry, receivedAt: entry.at, skewMs: 0 })),
    person,
    NOWHERE,
    transport,
    {
      now: () => new Date('2026-02-04T10:00:00.000Z'),
      newId: () => `01900001-0000-7000-8000-${String(++count).padStart(12, '0')}`,
      random: () => 0.5,
      setTimer: () => () => undefined,
      alone: () => Promise.resolve(),
    },
  );
}

/** As much of a desk as the pieces of a step look at. */
export function deskOf(circuit: Circuit, log: JobLog, person = 'Tove'): Desk {
  const model = new CircuitModel(circuit);
  return {
    speaker: { model, lanes: findLanes(model), gaugeUnit: 'bar' },
    log: { ...log.view(), write: log.write.bind(log), mend: log.mend.bind(log), drop: log.drop.bind(log) },
    person,
    job: {
      number: 1,
      circuit,
      policy: { timeZone: 'UTC' },
      me: somebody(person),
      people: [somebody(person), somebody('Ilse')],
    },
  } as unknown as Desk;
}
