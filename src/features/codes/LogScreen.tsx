'use client';

import { significant } from '@/core/units/significant';
import { Download, FileUp } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useMemo, useRef, useState } from 'react';
import type { LogSummary } from '@/core/codes/codeLog';
import type { FoundCode } from '@/core/codes/describe';
import { findCodes } from '@/core/codes/findCodes';
import { writeLogTable } from '@/formats/codeTables';
import { LongList } from '@/ui/LongList';
import { FIELD, Heading, MainKey, Nothing, PlainKey, Trouble } from '@/ui/sheet';
import { saveText } from '@/ui/saveText';
import { readLog, type LogRun } from '@/workers/logClient';
import { codeExtras, codeName, systemName } from '@/words/en/codes';

/** Charts touch the window: they are loaded in the browser only. */
const CodeTimeline = dynamic(() => import('./CodeTimeline').then((one) => one.CodeTimeline), { ssr: false });

const LARGEST_BYTES = 200_000_000;
const SHOWN = 500;

/** Codes without a job: anything typed or pasted, and bus logs dropped in. */
export function LogScreen() {
  const [text, setText] = useState('');
  const found = useMemo(() => findCodes(text), [text]);
  return (
    <div className="px-6 pb-10 max-tablet:px-3">
      <section aria-labelledby="paste">
        <Heading id="paste" aside="a code, a line of a log, ten lines of an e-mail">
          Type or paste
        </Heading>
        <textarea
          aria-label="Codes, in any notation"
          className={`${FIELD} fig mt-2 py-2 text-[16px]`}
          rows={3}
          value={text}
          maxLength={200_000}
          placeholder="168-4   SPN 523 FMI 31   P0045   59 02 FF 02 01 13 2F"
          onChange={(event) => setText(event.target.value)}
        />
        {text.trim() !== '' && found.length === 0 ? <Nothing>No code in that.</Nothing> : null}
        <LongList
          items={found}
          keyOf={keyOfFound}
          rowHeight={46}
          label="Codes found"
          className="flex min-h-11 flex-wrap items-baseline gap-x-3 border-b-[1.5px] border-rule py-1.5"
        >
          {(code) => (
            <>
              <span className="fig-bold min-w-40 text-[18px]">{codeName(code)}</span>
              <span className="text-[17px] font-[650]">{code.text}</span>
              <span className="text-[15.5px] text-ink2">
                {[systemName(code.system), ...codeExtras(code)].join(', ')}
              </span>
            </>
          )}
        </LongList>
      </section>
      <LogReaderPart />
    </div>
  );
}

const keyOfFound = (code: FoundCode, at: number) => `${codeName(code)}-${at}`;

type Reading =
  | { state: 'none' }
  | { state: 'reading'; name: string; share: number; run: LogRun }
  | { state: 'done'; name: string; summary: LogSummary; seconds: number }
  | { state: 'failed'; message: string };

function LogReaderPart() {
  const [reading, setReading] = useState<Reading>({ state: 'none' });
  const [over, setOver] = useState(false);
  const picker = useRef<HTMLInputElement>(null);
  const take = async (file: File | undefined) => {
    if (!file) return;
    if (reading.state === 'reading') reading.run.cancel();
    if (file.size > LARGEST_BYTES) {
      const size = Math.round(file.size / 1e6);
      setReading({
        state: 'failed',
        message: `${file.name} has ${size} MB; at most 200 MB are read. Cut it in two.`,
      });
      return;
    }
    const started = performance.now();
    const run = readLog(file, (share) =>
      setReading((now) => (now.state === 'reading' && now.run === run ? { ...now, share } : now)),
    );
    setReading({ state: 'reading', name: file.name, share: 0, run });
    const answer = await run.answer;
    setReading((now) => {
      if (now.state !== 'reading' || now.run !== run) return now;
      if (!answer.ok) return { state: 'failed', message: answer.message };
      return {
        state: 'done',
        name: file.name,
        summary: answer.value,
        seconds: (performance.now() - started) / 1000,
      };
    });
  };
  return (
    <section aria-labelledby="log" className="mt-5">
      <Heading
        id="log"
        aside="bus text with time stamps, or a table of codes; up to 200 MB, it stays on this machine"
      >
        Bus log
      </Heading>
      <div
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          event.preventDefault();
          setOver(false);
          void take(event.dataTransfer.files[0]);
        }}
        className={`mt-3 flex min-h-16 flex-wrap items-center gap-4 border-2 border-dashed px-5 py-2 ${over ? 'border-pencil bg-pencil-t' : 'border-edge'}`}
      >
        <FileUp size={24} aria-hidden />
        <span className="flex-1">Drop a log here, or choose one.</span>
        <input
          ref={picker}
          type="file"
          className="sr-only"
          aria-label="Log file"
          tabIndex={-1}
          onChange={(event) => {
            void take(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
        <PlainKey onClick={() => picker.current?.click()}>Choose a file</PlainKey>
      </div>
      {reading.state === 'reading' ? (
        <div className="mt-3 flex items-center gap-4" role="status">
          <progress
            className="h-3 flex-1 accent-pencil"
            value={reading.share}
            max={1}
            aria-label="Share read"
          />
          <span className="fig w-16 text-right">{Math.round(reading.share * 100)} %</span>
          <PlainKey onClick={() => reading.run.cancel()}>Stop</PlainKey>
        </div>
      ) : null}
      {reading.state === 'failed' ? <Trouble>{reading.message}</Trouble> : null}
      {reading.state === 'done' ? <LogResult {...reading} /> : null}
    </section>
  );
}

function LogResult({ name, summary, seconds }: { name: string; summary: LogSummary; seconds: number }) {
  const { codes, lines, frames, bad, broken, from, to, together } = summary;
  return (
    <div data-testid="log-result">
      <p className="py-3 text-[17px]">
        <strong className="font-[750] break-all">{name}</strong>: <Count n={lines} of="line" />,{' '}
        <Count n={frames} of="frame" /> over {span(to - from)}, read in {seconds.toFixed(1)} s.{' '}
        {bad > 0 ? (
          <span className="text-copper-ink">
            <Count n={bad} of="damaged line" /> left out.{' '}
          </span>
        ) : (
          'No damaged line. '
        )}
        {broken > 0 ? (
          <span className="text-copper-ink">
            <Count n={broken} of="message" /> broke off between packets.
          </span>
        ) : null}
      </p>
      {codes.length === 0 ? (
        <Nothing>No code in this log.</Nothing>
      ) : (
        <>
          <CodeTimeline summary={summary} />
          {together.length > 0 ? (
            <p className="py-2 text-[17px]">
              <strong className="font-[750]">Came together:</strong>{' '}
              {together
                .slice(0, 4)
                .map(
                  ({ codes: [a, b], times }) =>
                    `${codeName(codes[a]!)} and ${codeName(codes[b]!)}, ${times} times`,
                )
                .join('; ')}
              . Look at what they share: a feed, a ground, a plug.
            </p>
          ) : null}
          <CodeTable summary={summary} />
          <MainKey
            className="mt-4"
            onClick={() => saveText(`${name}.codes.csv`, 'text/csv', writeLogTable(summary))}
          >
            <Download size={20} aria-hidden /> Save as a table
          </MainKey>
        </>
      )}
    </div>
  );
}

function CodeTable({ summary: { codes, from } }: { summary: LogSummary }) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full min-w-[860px] border-collapse text-left">
        <thead className="text-[15.5px] text-ink2">
          <tr className="h-10 border-b-2 border-ink">
            {['Code', 'Says', 'From', 'Times', 'First', 'Last', 'Drops', 'Drops an hour'].map((head) => (
              <th key={head} className="pr-3 font-[600]">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {codes.slice(0, SHOWN).map((code, at) => (
            <tr key={at} className="h-11 border-b-[1.5px] border-rule">
              <td className="fig-bold pr-3 whitespace-nowrap">{codeName(code)}</td>
              <td className="pr-3">
                {code.text}
                {code.active === false ? <span className="text-ink2"> (stored)</span> : null}
              </td>
              <td className="fig pr-3">{code.sourceAddress < 0 ? '' : code.sourceAddress}</td>
              <td className="fig pr-3">{code.count}</td>
              <td className="fig pr-3 whitespace-nowrap">{span(code.first - from)}</td>
              <td className="fig pr-3 whitespace-nowrap">{span(code.last - from)}</td>
              <td className="fig pr-3">{code.drops}</td>
              <td className="fig pr-3">{code.drops === 0 ? '' : significant(code.dropsPerHour, 2)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {codes.length > SHOWN ? (
        <Nothing>
          The first {SHOWN} of {codes.length} codes; the saved table has all.
        </Nothing>
      ) : null}
    </div>
  );
}

function Count({ n, of }: { n: number; of: string }) {
  return (
    <>
      <span className="fig">{n.toLocaleString('en-GB')}</span> {n === 1 ? of : `${of}s`}
    </>
  );
}

/** "12 s", "3 min 20 s", "1 h 04 min". */
function span(seconds: number): string {
  if (seconds < 60) return `${Number(seconds.toFixed(1))} s`;
  const whole = Math.round(seconds);
  const minutes = Math.floor(whole / 60);
  if (minutes < 60) return `${minutes} min ${whole % 60} s`;
  return `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')} min`;
}
