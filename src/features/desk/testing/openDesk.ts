import { NO_PAST } from '@/core/sheets/onCircuit/jobSheet';
import { useSyncExternalStore } from 'react';
import { gaugeOn } from '@/core/circuit/medium';
import { CircuitModel } from '@/core/circuit/model';
import type { Circuit, Reading } from '@/core/circuit/schema';
import { NO_EXPERIENCE } from '@/core/diagnosis/experience';
import type { Entry } from '@/core/job/entries';
import { weighOptions } from '@/core/job/rules/weighOptions';
import { findLanes } from '@/core/path/lanes';
import { shopMarks } from '@/core/tables/marks';
import { makeDiagnosisService } from '@/workers/diagnosisService';
import { justDrawn } from '@/workers/protocol';
import { USUAL_POLICY } from '../../policy/policy';
import { preferencesOf } from '../../policy/preferencesOf';
import type { Desk, JobFacts } from '../desk';
import type { Speaker } from '@/words/en/readings';
import { AWAY, logOf } from './deskOf';
import type { SentEntry } from '../log/protocol';
import { somebody } from '@/core/testing/signedAs';

/**
 * A job's desk for a test: a real log and the real engine, without a server or a worker. `useDesk` stands in for the
 * screens' own, and shows what is written at once.
 */
export function openDesk(circuit: Circuit, entries: readonly Entry[] = [], more: Partial<JobFacts> = {}) {
  let hear: (entries: SentEntry[]) => void = () => undefined;
  const log = logOf('Tove', entries, {
    ...AWAY,
    follow: (_after, on) => {
      hear = on.entries;
      return () => undefined;
    },
  });
  log.start();
  const model = new CircuitModel(circuit);
  const service = makeDiagnosisService();
  const policy = { ...USUAL_POLICY, timeZone: 'UTC', ...more.policy };
  const speaker: Speaker = { model, lanes: findLanes(model), gaugeUnit: gaugeOn(model, policy.gaugeUnit) };
  const job = {
    id: '1',
    number: 1,
    title: 'A job',
    person: 'Tove',
    machineCode: 'T-1',
    machineName: 'Test bench',
    functionName: circuit.name,
    circuit,
    book: [],
    functions: [],
    past: NO_PAST,
    experience: NO_EXPERIENCE,
    alike: null,
    drifting: [],
    marks: shopMarks({}),
    stored: [],
    me: somebody(),
    people: [somebody(), somebody('Ilse'), somebody('Henrike', { role: 'lead' })],
    openedAt: '2026-02-04T08:00:00.000Z',
    ...more,
    policy,
  } as unknown as JobFacts;
  let weighed: { key: string; outlook: Desk['outlook'] } = { key: '', outlook: null };
  const weigh = (read: Reading[], options: Parameters<typeof service.weigh>[2]): Desk['outlook'] => {
    const key = JSON.stringify([read, options]);
    if (weighed.key === key) return weighed.outlook;
    const answer = service.weigh({ circuit, experience: job.experience }, read, options);
    if (!answer.ok) throw new Error(answer.message);
    weighed = { key, outlook: { ...answer.value, readings: read } };
    return weighed.outlook;
  };
  const evaluate: Desk['evaluate'] = (test) => {
    const answer = service.evaluate(justDrawn(circuit), readings(), test);
    return Promise.resolve(answer.ok ? answer.value : answer.message);
  };
  const useDesk = (): Desk => {
    const view = useSyncExternalStore(log.subscribe, log.view, log.view);
    const shown = view.state.readings.map(({ reading }) => reading);
    return {
      job,
      person: 'Tove',
      speaker,
      log: { ...view, write: log.write.bind(log), mend: log.mend.bind(log), drop: log.drop.bind(log) },
      readings: shown,
      outlook: weigh(shown, weighOptions(view.state, preferencesOf(policy), 14)),
      working: false,
      failure: null,
      again: () => undefined,
      evaluate,
      suppose: () => Promise.resolve(null),
    };
  };
  let arrived = entries.length;
  /** What somebody else wrote meanwhile, as the server tells it. */
  const arrive = (entry: Entry) => hear([{ number: ++arrived, entry, receivedAt: entry.at, skewMs: 0 }]);
  /** What was written last. */
  const last = () => log.view().entries.at(-1)!;
  /** Readings that count. */
  const readings = () => log.view().state.readings.map(({ reading }) => reading);
  return { log, useDesk, arrive, last, readings, speaker, job };
}
