'use client';

import { machineAddress } from '@/ui/machineAddress';
import { Download, FileUp, Plus } from 'lucide-react';
import { Link, LINE_LINK } from '@/ui/Link';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { useForm } from 'react-hook-form';
import { codeKey } from '@/core/codes/codeBook';
import type { BookRow } from '@/core/codes/bookRow';
import { BOOK_SYSTEMS } from '@/core/codes/bookSystems';
import { parseFigure } from '@/core/units/parseFigure';
import type { StoredBookRow } from '@/db/codeBook';
import { LongList } from '@/ui/LongList';
import { Field, FIELD, Heading, MainKey, Nothing, PlainKey, Trouble } from '@/ui/sheet';
import { useFilePicker } from '@/ui/useFilePicker';
import { dropBookRow, saveBookRow } from './actions';
import { sendUp } from '../sendUp';
import { sent } from '../sent';
import type { OpenBook } from './server';
import { linesWords, systemName } from '@/words/en/codes';
import { Form } from '@/ui/Form';

/** A table of thousands of lines is written line by line. */
const TABLE_MS = 60_000;

const EMPTY: BookRow = {
  system: 'maker',
  code: '',
  mode: '',
  means: null,
  text: '',
  function: '',
  part: '',
  sheet: '',
  note: '',
};

/** A machine's code book: what its codes mean, which function and driver they belong to, and what they were before. */
export function BookScreen({ machine, book, past, functions }: OpenBook) {
  const [open, setOpen] = useState<StoredBookRow | 'new' | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [told, setTold] = useState('');
  const router = useRouter();
  const [busy, start] = useTransition();
  const take = (file: File) =>
    start(async () => {
      const taken = await sendUp<{ added: number }>(
        `/api/machines/${encodeURIComponent(machine.code)}/codes.csv`,
        file,
        {
          type: 'text/csv',
          patienceMs: TABLE_MS,
          silent: 'The server does not answer. Bring the table again when it is back.',
        },
      );
      const refused = 'trouble' in taken;
      setTrouble(refused ? taken.trouble : null);
      setTold(refused ? '' : `${linesWords(taken.added)} taken in from ${file.name}.`);
      if (!refused) router.refresh();
    });
  const picker = useFilePicker({
    label: 'Code table',
    accept: '.csv,text/csv,text/plain',
    onFile: (file) => take(file),
  });
  return (
    <div className="px-6 pb-10 max-tablet:px-3">
      <div className="flex flex-wrap items-center gap-3 py-3">
        <MainKey onClick={() => setOpen('new')}>
          <Plus size={20} strokeWidth={3} aria-hidden /> Add a code
        </MainKey>
        <PlainKey disabled={busy} onClick={() => picker.choose()}>
          <FileUp size={20} aria-hidden /> Take in a table
        </PlainKey>
        {picker.input}
        <a
          className="inline-flex min-h-11 items-center gap-2 border-[1.5px] border-edge px-5 text-[17px] font-[650]"
          href={`/api/machines/${encodeURIComponent(machine.code)}/codes.csv`}
        >
          <Download size={20} aria-hidden /> Save as a table
        </a>
        <Link className={LINE_LINK} href={machineAddress(machine.code, 'bus')}>
          Listen to the bus
        </Link>
        <span role="status" className="text-verdi">
          {told}
        </span>
      </div>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
      {open ? (
        <RowForm
          key={open === 'new' ? 'new' : open.id}
          row={open === 'new' ? EMPTY : open}
          functions={functions}
          onLeave={() => setOpen(null)}
          onSave={async (row) => {
            const answer = await sent(saveBookRow(machine.code, row, open === 'new' ? undefined : open.id));
            if (!answer.trouble) setOpen(null);
            return answer.trouble;
          }}
          {...(open === 'new'
            ? {}
            : {
                onDrop: async () => {
                  const answer = await sent(dropBookRow(machine.code, open.id));
                  setTrouble(answer.trouble);
                  setOpen(null);
                },
              })}
        />
      ) : null}
      <Heading aside={linesWords(book.length)}>Codes</Heading>
      {book.length === 0 ? (
        <Nothing>
          No code is in this book yet. Add one, or take in the maker’s table: system, code, mode, means, text,
          function, part, sheet, note.
        </Nothing>
      ) : null}
      <LongList
        items={book}
        keyOf={idOf}
        rowHeight={54}
        label="Codes of this book"
        className="border-b-[1.5px] border-rule"
      >
        {(row) => (
          <>
            <button
              type="button"
              onClick={() => setOpen(row)}
              className="grid min-h-13 w-full grid-cols-[150px_minmax(0,1fr)_minmax(0,260px)_120px] items-baseline gap-x-4 py-2 text-left max-tablet:grid-cols-1"
            >
              <span>
                <span className="fig-bold text-[18px]">
                  {row.mode ? `${row.code}-${row.mode}` : row.code}
                </span>{' '}
                <span className="inline-block text-[15px] text-ink2">{systemName(row.system)}</span>
              </span>
              <span className="min-w-0">
                <span className="font-[650]">{row.text || 'no words'}</span>
                {row.means === null ? '' : ` · as mode ${row.means}`}
                {row.note ? <span className="block text-[15.5px] text-ink2">{row.note}</span> : null}
              </span>
              <span className="min-w-0 truncate text-[15.5px]" title={row.function}>
                {row.function || 'no function'}
                {row.part ? `, ${row.part}` : ''}
              </span>
              <span className="text-[15.5px] text-ink2">{row.sheet}</span>
            </button>
            <Past row={row} past={past} />
          </>
        )}
      </LongList>
    </div>
  );
}

const idOf = ({ id }: StoredBookRow) => id;

function Past({ row, past }: { row: StoredBookRow; past: OpenBook['past'] }) {
  const key = row.mode ? codeKey({ component: row.code, failureMode: Number(row.mode) || row.mode }) : null;
  const own = past.filter((one) => (key ? one.key === key : one.key.split('-')[0] === row.code));
  if (own.length === 0) return null;
  return (
    <p className="pb-2 text-[15.5px]">
      <span className="text-ink2">Had before:</span>{' '}
      {own.slice(0, 4).map((one, at) => (
        <span key={one.number}>
          {at > 0 ? '; ' : ''}
          <Link className="underline underline-offset-4" href={`/jobs/${one.number}`}>
            {one.machine} job {one.number}
          </Link>
          , {one.found ? `it was ${one.found}` : 'not decided'}
        </span>
      ))}
    </p>
  );
}

function RowForm({
  row: initial,
  functions,
  onSave,
  onDrop,
  onLeave,
}: {
  row: BookRow;
  functions: OpenBook['functions'];
  onSave: (row: BookRow) => Promise<string | null>;
  onDrop?: () => Promise<void>;
  onLeave: () => void;
}) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const { register, handleSubmit, watch, setValue } = useForm({
    defaultValues: { ...initial, means: initial.means === null ? '' : String(initial.means) },
  });
  const [busy, start] = useTransition();
  const drivers = functions.find(({ name }) => name === watch('function'))?.drivers ?? [];
  const text = (key: 'code' | 'mode' | 'text' | 'sheet' | 'note', label: string, className = '') => (
    <Field label={label} className={className}>
      <input className={FIELD} {...register(key)} />
    </Field>
  );
  const save = handleSubmit(({ means, ...row }) => {
    const mode = parseFigure(means);
    if (mode.is === 'none') {
      setTrouble(`Amounts to mode: “${mode.typed}” is no mode; type a whole number, or leave it empty.`);
      return;
    }
    // Which numbers are modes is the server's to say: it has the list.
    start(async () => setTrouble(await onSave({ ...row, means: mode.is === 'figure' ? mode.value : null })));
  });
  return (
    <Form
      className="mb-4 grid grid-cols-4 gap-x-4 gap-y-2 border-2 border-ink bg-film p-4 max-tablet:grid-cols-1"
      onSubmit={(event) => void save(event)}
    >
      <Field label="Notation">
        <select className={FIELD} {...register('system')}>
          {BOOK_SYSTEMS.map((system) => (
            <option key={system} value={system}>
              {systemName(system)}
            </option>
          ))}
        </select>
      </Field>
      {text('code', watch('system') === 'blink' ? 'Flashes, as 2-3' : 'Code')}
      {text('mode', 'Mode, if only one')}
      <Field label="Amounts to mode (0 to 31)">
        <input className={FIELD} inputMode="numeric" {...register('means')} />
      </Field>
      {text('text', 'What it says', 'col-span-2 max-tablet:col-span-1')}
      <Field label="Function">
        <select className={FIELD} {...register('function', { onChange: () => setValue('part', '') })}>
          <option value="">none</option>
          {functions.map(({ name }) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </Field>
      <Field label="Driver">
        <select className={FIELD} {...register('part')}>
          <option value="">any</option>
          {drivers.map((ref) => (
            <option key={ref}>{ref}</option>
          ))}
        </select>
      </Field>
      {text('sheet', 'Drawing sheet and square')}
      {text('note', 'Note', 'col-span-3 max-tablet:col-span-1')}
      <div className="col-span-full flex flex-wrap items-center gap-3">
        <MainKey type="submit" disabled={busy}>
          Keep it
        </MainKey>
        <PlainKey onClick={onLeave}>Leave as it was</PlainKey>
        {onDrop ? (
          <PlainKey className="ml-auto" disabled={busy} onClick={() => start(() => void onDrop())}>
            Take out of the book
          </PlainKey>
        ) : null}
      </div>
      {trouble ? (
        <div className="col-span-full">
          <Trouble>{trouble}</Trouble>
        </div>
      ) : null}
    </Form>
  );
}
