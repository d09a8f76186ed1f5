import type { LogTransport } from '../desk/log/JobLog';
import { httpTransport } from '../desk/log/transport';
import { isBegun } from '../desk/steps';
import { begunTransport } from './begunTransport';

/** The way to the server of a job, be it there already or begun here. */
export function transportOf(job: number): LogTransport {
  return isBegun(job) ? begunTransport(-job) : httpTransport(job);
}
