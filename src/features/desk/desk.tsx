'use client';

import { useRouter } from 'next/navigation';
import { createContext, useContext, useEffect, useMemo } from 'react';
import { gaugeOn } from '@/core/circuit/medium';
import { CircuitModel } from '@/core/circuit/model';
import type { Reading } from '@/core/circuit/schema';
import type { Entry } from '@/core/job/entries';
import { weighOptions } from '@/core/job/rules/weighOptions';
import { findLanes } from '@/core/path/lanes';
import type { JobPast } from '@/core/sheets/onCircuit/jobSheet';
import type { Experience } from '@/core/diagnosis/experience';
import type { Drifting } from '@/core/shed/readPastLimit';
import type { ShopMarks } from '@/core/tables/marks';
import type { StoredBookRow } from '@/db/codeBook';
import type { Policy } from '../policy/policy';
import { preferencesOf } from '../policy/preferencesOf';
import { useOutlook, type OutlookState } from './useOutlook';
import type { Speaker } from '@/words/en/readings';
import type { Person } from '@/core/people/roles';
import { keepBegin } from '../begun/keepBegin';
import { keepPages } from '../offline/keepPages';
import { isBegun, stepAddress } from './steps';
import { machineAddress } from '@/ui/machineAddress';
import type { OpenJob } from './server';
import { useJobLog, type OpenLog } from './log/useJobLog';

/** What a job's screens need from the server. */
export interface JobFacts extends Omit<OpenJob, 'entries'> {
  book: StoredBookRow[];
  /** The machine's functions, the parts each shares with this job's circuit, and whether they can be asked about together. */
  functions: { id: string; name: string; shares: string[]; joins: boolean }[];
  policy: Policy;
  /** What jobs that were handed over left proved. */
  past: JobPast;
  /** What the shed's past says of its circuit: odds, and ohms of its windings. */
  experience: Experience;
  /** What was found in functions drawn alike; null with too few proved jobs. */
  alike: { jobs: number; words: string } | null;
  /** Places of its function that drifted before it, the worst first. */
  drifting: readonly Drifting[];
  /** The shop's own figures for what nothing better is known of. */
  marks: ShopMarks;
  /** Who is signed in: everything is written in their name. */
  me: Person;
  /** Who works here: for a second person, and for who is licensed. */
  people: readonly Person[];
}

/** A job as it lies on the desk: its facts, its log, and what the engine makes of it. Shared by all its steps. */
export interface Desk extends OutlookState {
  job: JobFacts;
  person: string;
  speaker: Speaker;
  log: OpenLog;
  readings: Reading[];
}

/** Tests that the page lists beside the best one. */
const MOST_TESTS = 14;
/** First the page answers; then it is kept. */
const KEEP_AFTER_MS = 2500;

const DeskContext = createContext<Desk | null>(null);

export function useDesk(): Desk {
  const desk = useContext(DeskContext);
  if (!desk) throw new Error('useDesk needs a DeskProvider around it');
  return desk;
}

export function DeskProvider({ job, children }: { job: JobFacts; children: React.ReactNode }) {
  const { circuit } = job;
  const { gaugeUnit } = job.policy;
  const speaker = useMemo<Speaker>(() => {
    const model = new CircuitModel(circuit);
    return { model, lanes: findLanes(model), gaugeUnit: gaugeOn(model, gaugeUnit) };
  }, [circuit, gaugeUnit]);
  const person = job.me.name;
  const log = useJobLog(job.number, job.stored, person);
  const readings = useMemo(() => log.state.readings.map(({ reading }) => reading), [log.state]);
  const { noReach, skipped, isolated, madeSafe, when, looked, mended } = log.state;
  const options = useMemo(
    () =>
      weighOptions(
        { noReach, skipped, isolated, madeSafe, when, looked, mended },
        preferencesOf(job.policy),
        MOST_TESTS,
      ),
    [noReach, skipped, isolated, madeSafe, when, looked, mended, job.policy],
  );
  const { experience } = job;
  const known = useMemo(() => ({ circuit, experience }), [circuit, experience]);
  const outlook = useOutlook(known, readings, options);
  // The circuit, and what usually breaks in a weather, come with the page: they are read again when an entry that changes them is
  // saved, here or by somebody else.
  const router = useRouter();
  const news =
    log.entries.filter(changesCircuit).length >
      job.stored.filter(({ entry }) => changesCircuit(entry)).length || log.state.weather !== job.weather;
  const pending = log.waiting.some((entry) => changesCircuit(entry) || entry.type === 'complaint');
  useEffect(() => {
    if (news && !pending && !isBegun(job.number)) router.refresh();
  }, [news, pending, router, job.number]);
  // For a dead spot: this job and what goes with it.
  const { number, machineCode, functions } = job;
  useEffect(() => {
    const timer = setTimeout(() => {
      // One that was begun here lies here already.
      const own = isBegun(number) ? [] : [stepAddress(number, 'test')];
      void keepPages(['/', ...own, '/new', ...machinePages(machineCode)]).then(() =>
        keepBegin(functions.map(({ id }) => id)),
      );
    }, KEEP_AFTER_MS);
    return () => clearTimeout(timer);
  }, [number, machineCode, functions]);
  const desk = { ...outlook, job, person, speaker, log, readings };
  return <DeskContext value={desk}>{children}</DeskContext>;
}

function changesCircuit({ type }: Entry): boolean {
  return type === 'joined' || type === 'redrawn';
}

/** What of a machine is looked at beside a job. */
function machinePages(code: string): string[] {
  return [machineAddress(code), machineAddress(code, 'drawings')];
}
