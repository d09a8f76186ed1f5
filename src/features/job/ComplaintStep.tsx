import { CircuitModel } from '@/core/circuit/model';
import { reduceJob } from '@/core/job/reduceJob';
import { findLanes } from '@/core/path/lanes';
import { readingWords } from '../test/words';
import type { OpenJob } from './server';

/** What was reported, and every reading since, superseded ones struck through. Reading only, for now. */
export function ComplaintStep({ job }: { job: OpenJob }) {
  const state = reduceJob(job.entries);
  const model = new CircuitModel(job.circuit);
  const speaker = { model, lanes: findLanes(model) };
  return (
    <main className="min-h-0 flex-1 overflow-y-auto bg-sheet px-6 py-6">
      <h2 className="border-b-2 border-ink pb-2 text-[19px] font-[780]">As reported</h2>
      <p className="max-w-[70ch] py-4 text-[19px] leading-[26px]">
        {state.complaint ?? 'No words were written down.'}
      </p>
      <h2 className="mt-4 border-b-2 border-ink pb-2 text-[19px] font-[780]">
        The record{' '}
        <span className="text-[15.5px] font-[550] text-ink2">{job.functionName}, only ever added to</span>
      </h2>
      {state.history.length === 0 ? <p className="py-4 text-ink2">No reading yet.</p> : null}
      <ol>
        {state.history.map(({ entry, superseded }) => (
          <li key={entry.id} className="flex min-h-11 items-center gap-4 border-b-[1.5px] border-rule">
            <time className="fig text-[15px] text-ink2" dateTime={entry.at}>
              {entry.at.slice(0, 16).replace('T', ' ')} UTC
            </time>
            <span className={superseded ? 'line-through' : ''}>
              {readingWords(speaker, entry.body.reading)}
            </span>
            {superseded ? <span className="text-ink2">taken back</span> : null}
            <span className="ml-auto text-ink2">{entry.person}</span>
          </li>
        ))}
      </ol>
    </main>
  );
}
