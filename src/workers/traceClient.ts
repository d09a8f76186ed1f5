import type { CoilJudgement } from '@/core/trace/judgeCoil';
import type { Trace } from '@/core/trace/trace';
import type { TraceFile } from '@/formats/traceFile';
import { runIn, type OwnRun } from './ownWorker';
import type { ExpectedQuestion, TraceQuestion } from './traceTask';

interface TraceWorker {
  read(file: Blob, name: string): Promise<TraceFile>;
  judge(question: TraceQuestion): Promise<CoilJudgement>;
  expected(question: ExpectedQuestion): Promise<Trace | null>;
}

const ownWorker = () => new Worker(new URL('./trace.worker.ts', import.meta.url), { type: 'module' });
const failed = (why: string) => `${why.charAt(0).toUpperCase()}${why.slice(1)}.`;

/** Reads a file of a trace. */
export function readTrace(file: Blob, name: string): OwnRun<TraceFile> {
  return runIn<TraceWorker, TraceFile>(ownWorker(), (remote) => remote.read(file, name), failed);
}

/** Weighs a coil's trace; some seconds. */
export function weighTrace(question: TraceQuestion): OwnRun<CoilJudgement> {
  return runIn<TraceWorker, CoilJudgement>(ownWorker(), (remote) => remote.judge(question), failed);
}

/** What a sound load should draw. */
export function expectTrace(question: ExpectedQuestion): OwnRun<Trace | null> {
  return runIn<TraceWorker, Trace | null>(ownWorker(), (remote) => remote.expected(question), failed);
}
