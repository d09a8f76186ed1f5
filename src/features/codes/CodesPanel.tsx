'use client';

import { machineAddress } from '@/ui/machineAddress';
import { Check } from 'lucide-react';
import { Link, LINE_LINK } from '@/ui/Link';
import { useEffect, useMemo, useState } from 'react';
import { agreedBlinks, decodeBlinks, type LampEdge } from '@/core/codes/blink';
import { codeKey, lookUp, meansOf } from '@/core/codes/codeBook';
import type { FoundCode } from '@/core/codes/describe';
import { findCodes } from '@/core/codes/findCodes';
import { codedDrivers, codeReading, type CodedDriver } from '@/core/diagnosis/codeEvidence';
import { FIELD, Heading, MainKey, Nothing, PlainKey } from '@/ui/sheet';
import { inTwenty } from '@/ui/Turns';
import { answerTo } from '@/core/job/answerTo';
import { useDesk } from '../desk/desk';
import { isBegun } from '../desk/steps';
import { functionsBehind, pastJobsWith } from './actions';
import { sent } from '../sent';
import type { FunctionCandidate, PastCode } from './server';
import { takeBack } from './takeBack';
import { bookWords, codeExtras, codeName, systemName } from '@/words/en/codes';

/** Of a job that the server does not have yet: none is left out. */
const NO_NUMBER = -1;

const MOST_SHOWN = 30;

/** Codes of the job: typed or pasted in any notation, linked to the driver that set them, and pinned as readings. */
export function CodesPanel() {
  const { speaker, job, log } = useDesk();
  const drivers = useMemo(() => codedDrivers(speaker.model), [speaker]);
  const [text, setText] = useState('');
  const found = useMemo(() => findCodes(text), [text]);
  const pinned = log.state.codes;
  return (
    <section aria-labelledby="codes">
      <Heading id="codes" aside="type or paste anything that has a code in it">
        Codes
      </Heading>
      <textarea
        aria-label="Codes, in any notation"
        className={`${FIELD} fig mt-2 py-2 text-[16px]`}
        rows={text.includes('\n') ? 5 : 2}
        placeholder="14-06   SPN 520214 FMI 6   P0243-13   18FECA21#…"
        value={text}
        maxLength={20_000}
        onChange={(event) => setText(event.target.value)}
      />
      <BlinkPad onCode={(code) => setText((now) => [now.trim(), code].filter(Boolean).join('\n'))} />
      {text.trim() !== '' && found.length === 0 ? (
        <Nothing>No code in that. A pair is written 14-06, a long code P0243 or P0243-13.</Nothing>
      ) : null}
      <ul>
        {found.slice(0, MOST_SHOWN).map((code) => (
          <FoundRow key={codeName(code) + String(code.sourceAddress)} code={code} drivers={drivers} />
        ))}
      </ul>
      {found.length > MOST_SHOWN ? <Nothing>And {found.length - MOST_SHOWN} more.</Nothing> : null}
      {pinned.length > 0 ? <KnownCodes drivers={drivers} /> : null}
      {drivers.length > 0 ? (
        <ul>
          {drivers.map((driver) => (
            <NoCodeRow key={driver.part} driver={driver} />
          ))}
        </ul>
      ) : null}
      <p className="flex flex-wrap gap-x-5 text-[16px]">
        <PanelLink href={machineAddress(job.machineCode, 'bus')}>Listen to the bus</PanelLink>
        <PanelLink href="/codes">Read a bus log</PanelLink>
        <PanelLink href={machineAddress(job.machineCode, 'codes')}>Code book of {job.machineCode}</PanelLink>
      </p>
    </section>
  );
}

/** Held down while the lamp is lit: the flashes are counted into digits. Two rounds that agree are believed. */
function BlinkPad({ onCode }: { onCode: (code: string) => void }) {
  const [edges, setEdges] = useState<LampEdge[]>([]);
  const codes = decodeBlinks(edges);
  const [agreed] = agreedBlinks(codes);
  const mark = (on: boolean) =>
    setEdges((now) => (now.at(-1)?.on === on ? now : [...now, { seconds: performance.now() / 1000, on }]));
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1.5">
      <PlainKey
        className="touch-none px-4! select-none"
        onPointerDown={() => mark(true)}
        onPointerUp={() => mark(false)}
        onPointerLeave={() => edges.at(-1)?.on && mark(false)}
        onKeyDown={(event) => event.key === ' ' && !event.repeat && mark(true)}
        onKeyUp={(event) => event.key === ' ' && mark(false)}
      >
        Hold while the lamp is lit
      </PlainKey>
      {edges.length > 0 ? (
        <>
          <span className="fig" role="status">
            {codes.join('  ') || '1'}
          </span>
          <PlainKey
            className="px-3!"
            onClick={() => {
              const code = agreed ?? codes[0];
              if (code) onCode(code);
              setEdges([]);
            }}
          >
            {agreed ? `Take ${agreed}` : codes.length > 0 ? `Take ${codes[0]}, seen once` : 'Start over'}
          </PlainKey>
        </>
      ) : (
        <span className="text-[15.5px] text-ink2">for codes that blink; two rounds</span>
      )}
    </div>
  );
}

function PanelLink({ href, children }: { href: string; children: React.ReactNode }) {
  return (
    <Link href={href} className={LINE_LINK}>
      {children}
    </Link>
  );
}

/** A code that was read out of the text: what it says, whom it may be about, and how it becomes evidence. */
function FoundRow({ code, drivers }: { code: FoundCode; drivers: readonly CodedDriver[] }) {
  const { job, log } = useDesk();
  const matches = useMemo(() => lookUp(job.book, code), [job.book, code]);
  const means = matches[0]?.means ?? meansOf(code);
  const about = useAbout(code, means, matches);
  const here = about.candidates.filter((one) => one.function === job.functionName);
  const named = here[0]?.part ?? (matches.length === 0 && drivers.length === 1 ? drivers[0]!.part : '');
  const [picked, setPicked] = useState<string | null>(null);
  const part = picked ?? named;
  const driver = drivers.find((one) => one.part === part);
  const known = log.state.codes.find(({ key }) => key === codeKey(code));
  const pin = () => {
    log.write({
      type: 'code',
      body: {
        system: code.system,
        component: code.component,
        ...(code.failureMode === undefined ? {} : { failureMode: code.failureMode }),
        text: code.text,
        via: 'typed',
        ...(code.sourceAddress === undefined ? {} : { sourceAddress: code.sourceAddress }),
        ...(driver ? { part: driver.part } : {}),
        present: true,
      },
    });
    if (!driver || means === null || !driver.modes.includes(means)) return;
    const before = answerTo(log.state.readings, { kind: 'code', part: driver.part, setup: driver.setup });
    const modes = [
      ...new Set([...(Array.isArray(before?.reading.value) ? before.reading.value : []), means]),
    ];
    log.write({
      type: 'reading',
      body: { reading: codeReading(driver, modes), typed: codeName(code) },
      ...(before ? { supersedes: before.entry.id } : {}),
    });
  };
  const evidence = driver && means !== null && driver.modes.includes(means);
  return (
    <li className="border-b-[1.5px] border-rule py-2" data-testid="found-code">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <span className="fig-bold text-[19px]">{codeName(code)}</span>
        <span className="text-[17px] font-[650]">{code.text}</span>
        <span className="text-[15px] text-ink2">
          {[systemName(code.system), ...codeExtras(code)].join(', ')}
        </span>
      </div>
      {matches.map(({ row }) => (
        <p key={row.id} className="text-[16px]">
          <span className="text-ink2">Code book:</span> {bookWords(row)}
        </p>
      ))}
      {about.candidates.length > 1 || (about.candidates.length === 1 && here.length === 0) ? (
        <p className="text-[16px]">
          <span className="text-ink2">May be about</span>{' '}
          {about.candidates
            .slice(0, 4)
            .map((one) => `${one.function}, ${one.label} (${inTwenty(Math.round(one.share * 20))})`)
            .join('; ')}
        </p>
      ) : null}
      {about.trouble ? (
        <p className="text-[16px] text-ink2">
          Past jobs and other functions could not be looked up. The code can be pinned without them.
        </p>
      ) : null}
      {about.past.length > 0 ? (
        <p className="text-[16px]">
          <span className="text-ink2">Had before:</span>{' '}
          {about.past.slice(0, 3).map((one, at) => (
            <span key={one.number}>
              {at > 0 ? '; ' : ''}
              <Link href={`/jobs/${one.number}`} className="underline underline-offset-4">
                {one.machine} job {one.number}
              </Link>
              {one.found ? `, it was ${one.found}` : ', not decided'}
            </span>
          ))}
        </p>
      ) : null}
      <div className="mt-1 flex flex-wrap items-center gap-2">
        {drivers.length > 0 ? (
          <label className="flex min-w-0 items-center gap-2 text-[16px]">
            Set by
            <select
              className={`${FIELD} w-auto!`}
              value={part}
              onChange={(event) => setPicked(event.target.value)}
            >
              <option value="">none of this function</option>
              {drivers.map((one) => (
                <option key={one.part} value={one.part}>
                  {one.part} {one.label}
                </option>
              ))}
            </select>
          </label>
        ) : null}
        {known?.present && known.entry.body.part === (part || undefined) ? (
          <span className="flex min-h-11 items-center gap-1.5 text-verdi">
            <Check size={18} strokeWidth={3} aria-hidden /> in the record
          </span>
        ) : (
          <MainKey onClick={pin}>{evidence ? 'Pin as evidence' : 'Note it'}</MainKey>
        )}
      </div>
      {driver && means !== null && !driver.modes.includes(means) ? (
        <p className="text-[15.5px] text-ink2">
          {driver.part} cannot set mode {means} on this drawing: it is noted and weighs nothing.
        </p>
      ) : null}
    </li>
  );
}

/** What the server knows of a code: the functions it may be about, and jobs that had it. */
function useAbout(code: FoundCode, means: number | null, matches: ReturnType<typeof lookUp>) {
  const { job } = useDesk();
  const [candidates, setCandidates] = useState<FunctionCandidate[]>([]);
  const [past, setPast] = useState<PastCode[]>([]);
  const [trouble, setTrouble] = useState(false);
  const key = codeKey(code);
  const links = JSON.stringify(matches.map(({ row }) => ({ function: row.function, part: row.part })));
  useEffect(() => {
    let current = true;
    const asked = JSON.parse(links) as { function: string; part: string }[];
    // A code that the book names without a function is about none of them.
    const silent = asked.length > 0 && asked.every((one) => one.function === '');
    const question =
      means === null || silent
        ? Promise.resolve([])
        : sent(functionsBehind({ machineId: job.machineId, mode: means, links: asked }));
    void Promise.all([
      question,
      sent(pastJobsWith(job.machineId, [key], isBegun(job.number) ? NO_NUMBER : job.number)),
    ]).then(([functions, jobs]) => {
      if (!current) return;
      const refused = 'trouble' in functions || 'trouble' in jobs;
      setTrouble(refused);
      if (refused) return;
      setCandidates(functions);
      setPast(jobs);
    });
    return () => {
      current = false;
    };
  }, [job.machineId, job.number, key, means, links]);
  return { candidates, past, trouble };
}

/** Codes in the record, and whether they are still there. */
function KnownCodes({ drivers }: { drivers: readonly CodedDriver[] }) {
  const { job, log } = useDesk();
  return (
    <ul aria-label="Codes in the record">
      {log.state.codes.map(({ key, entry, present }) => (
        <li
          key={key}
          className="flex min-h-[52px] flex-wrap items-center gap-x-3 border-b-[1.5px] border-rule py-1"
        >
          <span className="fig-bold">{key}</span>
          <span className={`min-w-0 flex-1 ${present ? '' : 'text-ink2 line-through'}`}>
            {entry.body.text}
            {entry.body.part ? `, set by ${entry.body.part}` : ''}
          </span>
          <PlainKey
            className="px-3! text-[16px]!"
            onClick={() => log.write({ type: 'code', body: { ...entry.body, present: !present } })}
          >
            {present ? 'It is gone' : 'It is back'}
          </PlainKey>
          <PlainKey
            className="px-3! text-[16px]!"
            onClick={() => {
              const code = { key, entry, present };
              for (const draft of takeBack(code, log.entries, log.state, drivers, job.book)) log.write(draft);
            }}
          >
            Take it back
          </PlainKey>
        </li>
      ))}
    </ul>
  );
}

/** No code where one should be is evidence too. */
function NoCodeRow({ driver }: { driver: CodedDriver }) {
  const { log } = useDesk();
  const pinned = answerTo(log.state.readings, { kind: 'code', part: driver.part, setup: driver.setup });
  const none = Array.isArray(pinned?.reading.value) && pinned.reading.value.length === 0;
  return (
    <li className="flex min-h-[52px] flex-wrap items-center gap-3 border-b-[1.5px] border-rule py-1">
      <span className="min-w-0 flex-1">
        <strong className="font-[700]">
          {driver.part} {driver.label}
        </strong>{' '}
        <span className="text-ink2">
          {Array.isArray(pinned?.reading.value) && !none
            ? `code ${pinned.reading.value.join(', ')} pinned`
            : 'commanded, and the display shows no code of it'}
        </span>
      </span>
      <PlainKey
        aria-pressed={none}
        onClick={() =>
          none
            ? log.write({ type: 'withdrawal', supersedes: pinned!.entry.id, body: {} })
            : log.write({
                type: 'reading',
                body: { reading: codeReading(driver, []), typed: 'no code' },
                ...(pinned ? { supersedes: pinned.entry.id } : {}),
              })
        }
      >
        No code
      </PlainKey>
    </li>
  );
}
