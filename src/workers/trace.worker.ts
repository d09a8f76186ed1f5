import { expose } from 'comlink';
import { expectedTrace, judgeTrace, readTraceFile } from './traceTask';

expose({ read: readTraceFile, judge: judgeTrace, expected: expectedTrace });
