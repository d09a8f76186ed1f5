import { expose } from 'comlink';
import { judgeTrace, readTraceFile } from './traceTask';

expose({ read: readTraceFile, judge: judgeTrace });
