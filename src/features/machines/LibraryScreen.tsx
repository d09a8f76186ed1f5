'use client';

import { FileUp } from 'lucide-react';
import SearchForm from 'next/form';
import { Link, LINE_LINK, LINK } from '@/ui/Link';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { useForm } from 'react-hook-form';
import type { MachineRow } from '@/db/jobs';
import { Field, FIELD, Heading, MainKey, Nothing, PlainKey, TextField, Trouble } from '@/ui/sheet';
import { useFilePicker } from '@/ui/useFilePicker';
import { classAddress, machinesCount } from '@/words/en/classes';
import { sendUp } from '../sendUp';
import { createMachine } from './actions';
import { sent } from '../sent';
import { Form } from '@/ui/Form';

/** Every machine of the shed, and a new one by hand or from an archive. */
export function LibraryScreen({
  machines,
  total,
  all,
  q,
  equipment,
  classes,
  next,
}: {
  machines: readonly MachineRow[];
  /** As many as fit the words. */
  total: number;
  /** As many as there are. */
  all: number;
  q: string;
  /** Class of equipment that is shown alone; empty for all. */
  equipment: string;
  classes: readonly { name: string; machines: number }[];
  /** Code behind which the next page begins; null on the last one. */
  next: string | null;
}) {
  const address = (after: string) =>
    `/machines?${new URLSearchParams({ ...(q ? { q } : {}), ...(equipment ? { class: equipment } : {}), after }).toString()}`;
  const isPart = q !== '' || equipment !== '';
  return (
    <div className="grid gap-x-9 px-6 pb-8 max-tablet:px-3 desk:grid-cols-[minmax(0,1fr)_380px]">
      <section aria-labelledby="machines" className="min-w-0">
        <Heading id="machines" aside={isPart ? `${total} of ${all} in the shed` : `${all} in the shed`}>
          {equipment || 'Machines'}
        </Heading>
        {equipment ? (
          <p className="flex flex-wrap gap-x-6">
            <Link className={LINK} href={classAddress(equipment)}>
              The class as a whole
            </Link>
            <Link className={LINK} href="/machines">
              All machines
            </Link>
          </p>
        ) : null}
        {all > 12 ? (
          <SearchForm
            action="/machines"
            prefetch={false}
            role="search"
            className="flex max-w-[460px] items-end gap-2 py-2"
            key={q}
          >
            <Field label="Find by code, name, serial, place or class" className="flex-1">
              <input className={FIELD} name="q" type="search" maxLength={100} defaultValue={q} data-find />
            </Field>
            {equipment ? <input type="hidden" name="class" value={equipment} /> : null}
            <PlainKey type="submit">Find</PlainKey>
          </SearchForm>
        ) : null}
        {all === 0 ? <Nothing>No machine yet. Add the first one here.</Nothing> : null}
        {all > 0 && machines.length === 0 ? (
          <Nothing>
            {q
              ? `No machine${equipment ? ' of this class' : ''} has “${q}” in its code, name, serial, place or class.`
              : 'No machine is of this class.'}
          </Nothing>
        ) : null}
        <ul>
          {machines.map(({ code, name, functions, open_jobs }) => (
            <li key={code} className="border-b-[1.5px] border-rule">
              <Link
                href={`/machines/${encodeURIComponent(code)}`}
                className="grid min-h-[60px] grid-cols-[110px_minmax(0,1fr)_auto] items-center gap-x-4 py-1"
              >
                <span className="fig-bold truncate text-[21px]">{code}</span>
                <span className="min-w-0 break-words">{name}</span>
                <span className="text-[15.5px] text-ink2">
                  {functions === 1 ? '1 function' : `${functions} functions`}
                  {open_jobs > 0 ? `, ${open_jobs === 1 ? '1 job' : `${open_jobs} jobs`} in hand` : ''}
                </span>
              </Link>
            </li>
          ))}
        </ul>
        {next === null ? null : (
          <Link href={address(next)} className={LINE_LINK}>
            More machines
          </Link>
        )}
      </section>
      <div>
        <NewMachine codes={machines.map(({ code }) => code)} />
        <TakeIn />
        <Fleet />
        {classes.length > 0 ? (
          <section aria-labelledby="classes" className="mt-6">
            <Heading id="classes" aside="how each is drawn, and where one differs">
              Classes
            </Heading>
            <ul>
              {classes.map(({ name, machines: own }) => (
                <li key={name} className="border-b-[1.5px] border-rule">
                  <Link
                    href={classAddress(name)}
                    className="flex min-h-11 items-center gap-x-4 underline-offset-4 hover:underline"
                  >
                    <span className="min-w-0 flex-1 break-words">{name}</span>
                    <span className="text-[15.5px] text-ink2">{machinesCount(own)}</span>
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        ) : null}
        <p className="mt-6 text-[16px]">
          <Link className="mr-6 inline-flex min-h-11 items-center underline underline-offset-4" href="/bench">
            Bench sheets: a part in the hand, without a job
          </Link>
          <Link className={LINK} href="/tables">
            Reference tables: gauges, fuses, coils, contacts, insulation
          </Link>
        </p>
      </div>
    </div>
  );
}

/** A machine by hand: its code and what it is, and which one it is built like. */
function NewMachine({ codes }: { codes: readonly string[] }) {
  const { register, handleSubmit } = useForm({ defaultValues: { code: '', name: '', like: '' } });
  const [answer, setAnswer] = useState<{ trouble: string | null; field?: string }>({ trouble: null });
  const [busy, start] = useTransition();
  const add = handleSubmit((fields) =>
    start(async () => {
      const refused = await sent(createMachine(fields));
      // Where it was added, the page is left.
      if (refused) setAnswer(refused);
    }),
  );
  return (
    <section aria-labelledby="new-machine">
      <Heading id="new-machine">New machine</Heading>
      <Form className="grid gap-3 pt-2" onSubmit={(event) => void add(event)}>
        <Field label="Code">
          <input
            className={FIELD}
            placeholder="G-5"
            maxLength={20}
            aria-invalid={answer.field === 'code'}
            {...register('code')}
          />
        </Field>
        <Field label="What it is">
          <input className={FIELD} placeholder="Groomer OR-205" maxLength={120} {...register('name')} />
        </Field>
        {codes.length > 0 ? (
          <Field label="Built like: gets its functions, code book and sheets">
            <input
              className={FIELD}
              placeholder="none"
              maxLength={20}
              list="machine-codes"
              aria-invalid={answer.field === 'like'}
              {...register('like')}
            />
            <datalist id="machine-codes">
              {codes.map((code) => (
                <option key={code} value={code} />
              ))}
            </datalist>
          </Field>
        ) : null}
        {answer.trouble ? <Trouble>{answer.trouble}</Trouble> : null}
        <MainKey type="submit" disabled={busy}>
          Add it
        </MainKey>
      </Form>
    </section>
  );
}

/** An archive of a hundred megabytes over a slow link takes its time. */
const ARCHIVE_MS = 180_000;
const FLEET_MS = 120_000;

/** A machine from an archive file, under its own code or another. */
function TakeIn() {
  const router = useRouter();
  const [code, setCode] = useState('');
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const take = async (file: File) => {
    setBusy(true);
    setTrouble(null);
    const taken = await sendUp<{ code: string }>(`/api/machines?code=${encodeURIComponent(code)}`, file, {
      patienceMs: ARCHIVE_MS,
      silent: 'The server does not answer. Nothing was taken in; try again.',
    });
    if ('trouble' in taken) setTrouble(taken.trouble);
    else router.push(`/machines/${encodeURIComponent(taken.code)}`);
    setBusy(false);
  };
  const picker = useFilePicker({
    label: 'Machine archive',
    accept: '.zip,application/zip',
    onFile: (file) => void take(file),
  });
  return (
    <section aria-labelledby="take-in" className="mt-6">
      <Heading id="take-in" aside="from another shed">
        From an archive
      </Heading>
      <div className="flex items-end pt-2">
        <TextField
          label="Under another code, if you like"
          className="flex-1"
          value={code}
          maxLength={20}
          onType={setCode}
        />
        <PlainKey className="-ml-[1.5px]" disabled={busy} onClick={() => picker.choose()}>
          <FileUp size={20} aria-hidden /> {busy ? 'Reading it' : 'Choose'}
        </PlainKey>
        {picker.input}
      </div>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </section>
  );
}

/** The whole fleet as a table, out and in. */
function Fleet() {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<{ good: boolean; words: string } | null>(null);
  const take = async (file: File) => {
    setBusy(true);
    setSaid(null);
    const taken = await sendUp<{ message: string }>('/api/machines.csv', file, {
      type: 'text/csv',
      patienceMs: FLEET_MS,
      silent:
        'The server does not answer. Bring the table again when it is back; what was taken in is not taken in twice.',
    });
    if ('trouble' in taken) setSaid({ good: false, words: taken.trouble });
    else {
      setSaid({ good: true, words: taken.message });
      router.refresh();
    }
    setBusy(false);
  };
  const picker = useFilePicker({
    label: 'Fleet table',
    accept: '.csv,text/csv',
    onFile: (file) => void take(file),
  });
  return (
    <section aria-labelledby="fleet" className="mt-6">
      <Heading id="fleet" aside="code, name, equipment, serial, place, hours, like">
        Fleet as a table
      </Heading>
      <p className="py-2 text-[16px] text-ink2">
        A machine that is there gets what the table says of it. A new one gets the functions, code book and
        sheets of the machine under “like”.
      </p>
      <div className="flex flex-wrap items-center gap-x-5">
        <PlainKey disabled={busy} onClick={() => picker.choose()}>
          <FileUp size={18} aria-hidden /> {busy ? 'Taking it in …' : 'Take a table in'}
        </PlainKey>
        <a className={LINK} href="/api/machines.csv">
          The fleet as CSV
        </a>
        {picker.input}
      </div>
      {said === null ? null : said.good ? (
        <p role="status" className="py-2 text-verdi">
          ✓ {said.words}
        </p>
      ) : (
        <Trouble>{said.words}</Trouble>
      )}
    </section>
  );
}
