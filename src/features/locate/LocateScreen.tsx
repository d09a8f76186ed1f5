'use client';

import { machineAddress } from '@/ui/machineAddress';
import { Check } from 'lucide-react';
import { Link, LINK } from '@/ui/Link';
import { useEffect, useMemo, useState } from 'react';
import { Heading, Nothing, PlainKey, TextField } from '@/ui/sheet';
import { KIND_NAMES } from '@/words/en/drawing';
import { Picture } from '../photos/Picture';
import { useDesk } from '../desk/desk';
import { StepLayout } from '../desk/StepLayout';
import { evenStandings } from '@/core/path/evenStandings';
import { findOnMachine } from './actions';
import { sent } from '../sent';
import type { FoundPart } from './server';

const STATE_WORDS = { doubt: 'in doubt', held: 'held', spared: 'spared', bad: 'proved bad' } as const;

/** The drawing was changed since this job was opened: it stays on its own until somebody takes the new one. */
function NewerDrawing() {
  const { job, log } = useDesk();
  const own = log.state.redrawn ?? job.openedOnVersion;
  const base = `/machines/${encodeURIComponent(job.machineCode)}/draw?function=${job.functionId}`;
  if (job.newestVersion <= own)
    return (
      <p className="text-[16px]">
        <Link className={LINK} href={base}>
          The drawing, version {own}
        </Link>
      </p>
    );
  return (
    <section data-testid="newer-drawing" className="my-3 border-2 border-ink bg-sheet p-4">
      <p className="text-[17px] font-[650]">
        This job stands on version {own} of its drawing; version {job.newestVersion} is in the library.
      </p>
      <p className="mt-1 text-[15.5px] text-ink2">
        Readings stay as they are, and are weighed on the new drawing. It is refused where one of them would
        mean nothing there.
      </p>
      <div className="mt-3 flex flex-wrap items-center gap-4">
        <PlainKey onClick={() => log.write({ type: 'redrawn', body: { version: job.newestVersion } })}>
          Take the new drawing
        </PlainKey>
        <Link className={LINK} href={base}>
          See what changed
        </Link>
      </div>
    </section>
  );
}

/** Where everything is: on the drawing, on the machine, and how long it takes to get there. */
export function LocateScreen() {
  const { speaker, outlook, job } = useDesk();
  const { compiled } = speaker.model;
  const [part, setPart] = useState<string | null>(null);
  const standings = outlook?.standings ?? evenStandings(compiled.parts.length);
  const rows = useMemo(
    () =>
      compiled.parts
        .map(({ part: one, index }) => ({ part: one, standing: standings[index]! }))
        .sort((a, b) => b.standing.share - a.standing.share),
    [compiled, standings],
  );
  return (
    <StepLayout
      part={part}
      onPart={setPart}
      left={
        <section aria-labelledby="parts">
          <Heading id="parts" aside="most doubt first">
            Parts on this path
          </Heading>
          <ul>
            {rows.map(({ part: one, standing }) => (
              <li key={one.ref} className="border-b-[1.5px] border-rule">
                <button
                  type="button"
                  aria-pressed={part === one.ref}
                  onClick={() => setPart(part === one.ref ? null : one.ref)}
                  className="grid min-h-[52px] w-full grid-cols-[92px_minmax(0,1fr)_auto] items-center gap-x-3 py-1 text-left aria-pressed:bg-pencil-t"
                >
                  <span className="fig-bold truncate" title={one.ref}>
                    {one.ref}
                  </span>
                  <span className="min-w-0">
                    <span className="block truncate">{one.label ?? KIND_NAMES[one.kind]}</span>
                    <span className="block truncate text-[15.5px] text-ink2">
                      {[one.place ?? 'place not written down', sheetWords(one), minutes(one.accessMinutes)]
                        .filter(Boolean)
                        .join(' · ')}
                    </span>
                  </span>
                  <span
                    className={
                      standing.state === 'spared'
                        ? 'text-verdi'
                        : standing.state === 'bad'
                          ? 'text-stamp'
                          : 'text-ink2'
                    }
                  >
                    {STATE_WORDS[standing.state]}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      }
      right={
        <>
          <NewerDrawing />
          {part ? <PartSheet key={part} part={part} /> : null}
          <LegendSearch machineId={job.machineId} machine={job.machineCode} />
          <p className="text-[16px]">
            <Link
              className={LINK}
              href={`${machineAddress(job.machineCode, 'drawings')}${part ? `?part=${encodeURIComponent(part)}` : ''}`}
            >
              {part ? `${part} on the drawing` : `Drawings of ${job.machineCode}`}
            </Link>
          </p>
        </>
      }
    />
  );
}

const minutes = (access: number | undefined) => (access === undefined ? '' : `${access} min to reach`);
const sheetWords = ({ sheet, square }: { sheet?: string | undefined; square?: string | undefined }) =>
  [sheet ? `sheet ${sheet}` : '', square ? `square ${square}` : ''].filter(Boolean).join(', ');

/** One part: where it is, its points, and its pictures. */
function PartSheet({ part }: { part: string }) {
  const { speaker, log } = useDesk();
  const one = speaker.model.compiled.circuit.parts.find(({ ref }) => ref === part)!;
  const photos = log.state.photos.filter(({ body }) => body.part === part);
  const found = log.state.looked.get(`found ${part}`)?.body.finding === 'good';
  const points = Object.entries(one.nodes as Record<string, string>).map(([terminal, node]) => {
    const at = speaker.model.compiled.nodeIndex.get(node);
    const point = at === undefined ? undefined : speaker.lanes.pointOf.get(at);
    return { terminal, node, point };
  });
  return (
    <section aria-labelledby="part" className="pb-3">
      <Heading id="part" aside={KIND_NAMES[one.kind]}>
        {one.ref} {one.label}
      </Heading>
      <p className="pt-2 text-[18px]">{one.place ?? 'Its place on the machine is not written down.'}</p>
      <p className="text-ink2">
        {[sheetWords(one), minutes(one.accessMinutes)].filter(Boolean).join(' · ') ||
          'No drawing sheet is written down.'}
      </p>
      <ul className="py-1">
        {points.map(({ terminal, node, point }) => (
          <li key={terminal} className="flex min-h-9 items-center gap-3 text-[16px]">
            <span className="fig w-16 text-ink2">{terminal}</span>
            <span className="fig-bold">{point === undefined ? node : `point ${point}`}</span>
            {point === undefined ? null : <span className="text-ink2">{node}</span>}
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2">
        {photos.map((photo) => (
          <Picture
            key={photo.id}
            photo={photo.body.photo}
            alt={photo.body.caption || `${part} on the machine`}
            className="h-24 border border-edge"
          />
        ))}
      </div>
      <PlainKey
        className="mt-2"
        aria-pressed={found}
        onClick={() =>
          log.write({ type: 'looked', body: { check: `found ${part}`, finding: found ? 'notSeen' : 'good' } })
        }
      >
        {found ? <Check size={18} strokeWidth={3} aria-hidden /> : null} Found on the machine
      </PlainKey>
    </section>
  );
}

/** A part or a grid square, across every drawing of the machine. */
function LegendSearch({ machineId, machine }: { machineId: string; machine: string }) {
  const [text, setText] = useState('');
  const [found, setFound] = useState<FoundPart[] | null>(null);
  const [trouble, setTrouble] = useState(false);
  useEffect(() => {
    if (text.trim().length < 1) return;
    let current = true;
    const timer = setTimeout(() => {
      void sent(findOnMachine(machineId, text)).then((answer) => {
        if (!current) return;
        const refused = 'trouble' in answer;
        setTrouble(refused);
        if (!refused) setFound(answer);
      });
    }, 150);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [machineId, text]);
  const shown = text.trim() === '' ? null : found;
  return (
    <section aria-labelledby="legend">
      <Heading id="legend" aside={`every drawing of ${machine}`}>
        Find in the legend
      </Heading>
      <TextField
        label="Part, word or grid square"
        className="py-2"
        type="search"
        value={text}
        placeholder="Y14, bulkhead, C4"
        onType={setText}
      />
      {trouble ? <Nothing>The server does not answer; this job’s own parts are on the left.</Nothing> : null}
      {shown && shown.length === 0 ? <Nothing>Nothing on this machine is called that.</Nothing> : null}
      <ul aria-label="Found in the legend">
        {shown?.map((one) => (
          <li
            key={`${one.function}-${one.ref}`}
            className="flex min-h-11 flex-wrap items-baseline gap-x-3 border-b-[1.5px] border-rule py-1"
          >
            <span className="fig-bold">{one.ref}</span>
            <span>{one.label}</span>
            <span className="text-[15.5px] text-ink2">
              {[one.place, sheetWords(one), one.function].filter(Boolean).join(' · ')}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
