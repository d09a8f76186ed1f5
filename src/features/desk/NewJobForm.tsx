'use client';

import { useEffect, useRef, useState, useTransition } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { askServer } from '../askServer';
import { openNewJob } from './actions';
import { sent } from '../sent';
import { beginHere } from '../begun/beginHere';
import { keepPages } from '../offline/keepPages';
import { keepBegin, keptBegin, listBegin } from '../begun/keepBegin';
import { drawnTrials } from '../begun/drawnTrials';
import type { FunctionChoice } from './functionChoices';
import type { Trial } from './trials';
import type { NewJob } from './newJobSchema';
import { useFunctionSearch } from './useFunctionSearch';
import { Form } from '@/ui/Form';
import { PlainKey } from '@/ui/sheet';
import { useWho } from '@/ui/who';
import { v7 as uuidv7 } from 'uuid';
import { stepAddress } from './steps';

/** What is typed; id and time come when it is sent. */
type Said = Omit<Required<NewJob>, 'id' | 'openedAt'>;

const ANSWERS = ['works', 'weak', 'dead'] as const;
/** First the page answers; then what it would need in a dead spot is kept. */
const KEEP_AFTER_MS = 3000;
const FIELD = 'mt-1 block min-h-11 w-full border-[1.5px] border-edge bg-sheet px-3 text-[17px]';

/** Opens a job: which function, what fails, and what still works. */
export function NewJobForm({
  functions: first,
  total,
  trials: firstTrials,
  wanted,
}: {
  functions: readonly FunctionChoice[];
  /** As many as there are in the shed. */
  total: number;
  /** What can be tried on the function that the form begins with. */
  trials: readonly Trial[];
  /** Function to begin with. */
  wanted?: string;
}) {
  // No machine is chosen until somebody does: a job must not begin on the wrong one.
  const { register, handleSubmit, control } = useForm<Said>({
    defaultValues: { functionId: wanted ?? '', title: '', words: '', answers: {} },
  });
  const [refused, setRefused] = useState<{ trouble: string | null; field?: string; away?: true }>({
    trouble: null,
  });
  const me = useWho();
  /** One job, however often it is sent: the server may have heard it and nobody the answer. */
  const opening = useRef<Pick<NewJob, 'id' | 'openedAt'> | null>(null);
  const [pending, start] = useTransition();
  const [find, setFind] = useState('');
  const search = useFunctionSearch(find, { functions: first, total });
  const kept = useKept(first);
  const functions = search.away ? kept.filter((one) => fits(one, find)) : search.functions;
  const picked = useWatch({ control, name: 'functionId' });
  // A list that was searched anew may not hold what was picked before.
  const chosen = functions.some(({ id }) => id === picked) ? picked : '';
  const { trials, looking } = useTrials(chosen, wanted === chosen ? firstTrials : null);
  // What was said of another function before this one was chosen is not said of this one.
  const ownAnswers = (answers: Said['answers']) =>
    Object.fromEntries(
      trials.map(({ key }, at) => [key, answers[`${chosen}-${at}`] ?? 'not tried'] as const),
    );
  const open = handleSubmit(({ answers, ...said }) =>
    start(async () => {
      opening.current ??= { id: uuidv7(), openedAt: new Date().toISOString() };
      const answer = await sent(
        openNewJob({ ...opening.current, ...said, functionId: chosen, answers: ownAnswers(answers) }),
        { trouble: 'The server does not answer. What was typed stands here.', away: true as const },
      );
      // Where it was opened, the page is left.
      if (answer) setRefused(answer);
    }),
  );
  const begin = handleSubmit(({ answers, ...said }) =>
    start(async () => {
      opening.current ??= { id: uuidv7(), openedAt: new Date().toISOString() };
      const done = await beginHere(
        { ...opening.current, ...said, functionId: chosen, answers: ownAnswers(answers) },
        me,
      );
      if ('trouble' in done) setRefused({ ...done, away: true });
      // A page of its own, loaded whole: there is no server that Next could ask for it.
      else window.location.assign(stepAddress(-done.local, 'complaint'));
    }),
  );
  const invalid = (field: keyof NewJob) =>
    refused.field === field ? { 'aria-invalid': true, 'aria-describedby': 'trouble' } : {};
  return (
    <Form onSubmit={(event) => void open(event)} className="max-w-[860px]">
      {total > first.length ? (
        <label className="mb-4 block max-w-[460px] font-[750]">
          Find it by any words
          <input
            type="search"
            value={find}
            maxLength={100}
            onChange={(event) => setFind(event.target.value)}
            className={FIELD}
            data-find
          />
          <span className="text-[15.5px] font-[550] text-ink2" role="status">
            {search.away
              ? 'The server does not answer; listed is what this device keeps.'
              : search.total > functions.length
                ? `${functions.length} of ${search.total} are listed: a word of the machine or the function finds the others.`
                : search.total === 0
                  ? `No function is called “${find}”.`
                  : `${search.total} found.`}
          </span>
        </label>
      ) : null}
      <label className="block font-[750]">
        Machine and function
        <select className={FIELD} {...register('functionId')} value={chosen} {...invalid('functionId')}>
          {chosen === '' ? <option value="">choose</option> : null}
          {functions.map(({ id, machine, name }) => (
            <option key={id} value={id}>
              {machine}: {name}
            </option>
          ))}
        </select>
      </label>
      <label className="mt-5 block font-[750]">
        What fails
        <input className={FIELD} {...register('title')} {...invalid('title')} />
      </label>
      <label className="mt-5 block font-[750]">
        In the driver’s words
        <textarea rows={3} className={`${FIELD} py-2`} {...register('words')} />
      </label>
      <fieldset className="mt-7">
        <legend className="w-full border-b-2 border-ink pb-2 text-[19px] font-[780]">
          What works, what does not{' '}
          <span className="text-[15.5px] font-[550] text-ink2">
            each answer clears or accuses parts at once
          </span>
        </legend>
        {looking ? (
          <p className="py-3 text-ink2" role="status">
            Looking up what can be tried on it.
          </p>
        ) : null}
        {trials.map(({ key, label, position }, at) => (
          <div
            key={`${chosen}-${key}`}
            role="radiogroup"
            aria-label={`${label}, ${position}`}
            className="flex min-h-[52px] flex-wrap items-center gap-x-4 border-b-[1.5px] border-rule"
          >
            <span className="min-w-0 flex-1">
              {label} <span className="text-ink2">{position}</span>
            </span>
            {[...ANSWERS, 'not tried' as const].map((answer) => (
              <label key={answer} className="flex min-h-11 items-center gap-2 pr-1">
                <input
                  type="radio"
                  value={answer}
                  defaultChecked={answer === 'not tried'}
                  className="size-5 accent-pencil"
                  {...register(`answers.${chosen}-${at}`)}
                />
                {answer}
              </label>
            ))}
          </div>
        ))}
      </fieldset>
      {refused.trouble ? (
        <p
          id="trouble"
          role="alert"
          className="mt-5 border-l-[6px] border-stamp bg-stamp-t px-4 py-3 text-stamp"
        >
          ✕ {refused.trouble}
        </p>
      ) : null}
      {refused.away ? (
        <div className="mt-4 border-l-[6px] border-ink bg-pencil-t px-4 py-3" data-testid="begin-here">
          <p className="mb-2">
            It can be begun on this device: all nine steps work, and it is sent with all its readings when the
            server is there. It gets its number then.
          </p>
          <PlainKey type="button" disabled={pending} onClick={() => void begin()}>
            Begin it here
          </PlainKey>
        </div>
      ) : null}
      <button
        type="submit"
        // What comes in above moves it: a press on its way down would go beside it.
        disabled={pending || looking}
        className="mt-7 min-h-12 bg-pencil px-8 text-[18px] font-[750] text-sheet disabled:opacity-60"
      >
        {pending ? 'Opening' : 'Open the job'}
      </button>
    </Form>
  );
}

/** Functions that this device keeps, for where the server is away. */
function useKept(first: readonly FunctionChoice[]): readonly FunctionChoice[] {
  const [kept, setKept] = useState<readonly FunctionChoice[]>(first);
  useEffect(() => {
    const timer = setTimeout(
      () =>
        void keepPages(['/new'])
          .then(() => keepBegin(first.map(({ id }) => id)))
          .then(listBegin)
          .then((all) => setKept(all.length > 0 ? all : first)),
      KEEP_AFTER_MS,
    );
    return () => clearTimeout(timer);
  }, [first]);
  return kept;
}

function fits({ machine, name }: FunctionChoice, find: string): boolean {
  const text = `${machine} ${name}`.toLowerCase();
  return find
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

/** What can be tried on the chosen function; asked of the server, or worked out from what is kept where it is away. */
function useTrials(
  functionId: string,
  known: readonly Trial[] | null,
): { trials: readonly Trial[]; looking: boolean } {
  const [fetched, setFetched] = useState<{ id: string; trials: readonly Trial[] } | null>(null);
  const missing = known === null && functionId !== '';
  useEffect(() => {
    if (!missing) return;
    const leave = new AbortController();
    askServer<{ trials?: Trial[] }>(`/api/functions/${functionId}`, { signal: leave.signal })
      .then(({ trials = [] }) => trials)
      .catch(async () => {
        const kept = leave.signal.aborted ? null : await keptBegin(functionId);
        return kept ? drawnTrials(kept.circuit) : null;
      })
      // Without the list a job can be opened all the same; its first readings are taken on the Complaint step.
      .catch(() => null)
      .then((trials) => {
        if (!leave.signal.aborted) setFetched({ id: functionId, trials: trials ?? [] });
      });
    return () => leave.abort();
  }, [functionId, missing]);
  const found = known ?? (fetched?.id === functionId ? fetched.trials : null);
  return { trials: found ?? [], looking: missing && found === null };
}
