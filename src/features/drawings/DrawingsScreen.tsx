'use client';

import { FileUp } from 'lucide-react';
import { Link } from '@/ui/Link';
import { useSearchParams } from 'next/navigation';
import { useRef, useState } from 'react';
import { POINT_PIN } from '@/core/path/probePlaces';
import { Field, FIELD, Heading, Nothing, PlainKey, Trouble } from '@/ui/sheet';
import { useFilePicker } from '@/ui/useFilePicker';
import { keepPhoto } from '../keepPhoto';
import { pagesOf } from './pages';
import { addSheet, dropSheet, pinPart, unpinPart } from './actions';
import { sent } from '../sent';
import type { OpenDrawings } from './server';

/** Sheets of a machine's drawings, with pins that link to its parts. */
export function DrawingsScreen({ machine, drawings, parts, points }: OpenDrawings) {
  const params = useSearchParams();
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState('');
  const wanted = params.get('part');
  const sheet =
    drawings.find(({ id }) => id === params.get('sheet')) ??
    drawings.find(({ pins }) => pins.some(({ part }) => part === wanted)) ??
    drawings[0];
  const take = async (file: File) => {
    setTrouble(null);
    try {
      setBusy(`Reading ${file.name}`);
      const pages = await pagesOf(file, (page, of) => setBusy(`Page ${page} of ${of}`));
      for (const { name, picture } of pages) {
        const kept = await keepPhoto(picture, name, 'drawing');
        const answer = 'trouble' in kept ? kept : await sent(addSheet(machine.code, name, kept.hash));
        if (answer.trouble) {
          setTrouble(answer.trouble);
          break;
        }
      }
    } catch (error) {
      setTrouble(
        `${file.name} could not be read: ${error instanceof Error ? error.message : String(error)}.`,
      );
    }
    setBusy('');
  };
  const base = `/machines/${encodeURIComponent(machine.code)}/drawings`;
  const picker = useFilePicker({
    label: 'Drawing file',
    accept: 'application/pdf,image/*',
    onFile: (file) => void take(file),
  });
  return (
    <div className="grid gap-x-6 px-6 pb-8 max-tablet:px-3 desk:grid-cols-[260px_minmax(0,1fr)]">
      <section aria-labelledby="sheets">
        <Heading id="sheets" aside={`${drawings.length}`}>
          Drawings and photos
        </Heading>
        {drawings.length === 0 ? (
          <Nothing>
            Nothing is kept yet: a PDF, a picture of a sheet, or your own photo of the machine. A test then
            shows where its probes go.
          </Nothing>
        ) : null}
        <ul>
          {drawings.map(({ id, name, pins }) => (
            <li key={id}>
              <Link
                href={`${base}?sheet=${id}`}
                aria-current={id === sheet?.id ? 'true' : undefined}
                className="flex min-h-[52px] items-center gap-3 border-b-[1.5px] border-rule px-2 aria-[current]:bg-pencil-t"
              >
                <span className="min-w-0 flex-1 break-words">{name}</span>
                <span className="text-[15.5px] text-ink2">
                  {pins.length === 1 ? '1 pin' : `${pins.length} pins`}
                </span>
              </Link>
            </li>
          ))}
        </ul>
        {picker.input}
        <PlainKey className="mt-3" disabled={busy !== ''} onClick={() => picker.choose()}>
          <FileUp size={20} aria-hidden /> {busy || 'Add a drawing'}
        </PlainKey>
        {trouble ? <Trouble>{trouble}</Trouble> : null}
      </section>
      {sheet ? (
        <Sheet
          key={sheet.id}
          code={machine.code}
          sheet={sheet}
          parts={parts}
          points={points}
          wanted={wanted}
          onTrouble={setTrouble}
        />
      ) : null}
    </div>
  );
}

function Sheet({
  code,
  sheet,
  parts,
  points,
  wanted,
  onTrouble,
}: {
  code: string;
  sheet: OpenDrawings['drawings'][number];
  parts: OpenDrawings['parts'];
  points: OpenDrawings['points'];
  wanted: string | null;
  onTrouble: (trouble: string | null) => void;
}) {
  const [part, setPart] = useState(wanted ?? parts[0]?.ref ?? '');
  const picture = useRef<HTMLImageElement>(null);
  const pinned = sheet.pins.some((pin) => pin.part === part);
  const place = async (event: React.MouseEvent) => {
    const box = picture.current!.getBoundingClientRect();
    const x = (event.clientX - box.left) / box.width;
    const y = (event.clientY - box.top) / box.height;
    onTrouble((await sent(pinPart(code, sheet.id, { part, x, y }))).trouble);
  };
  return (
    <section aria-labelledby="sheet" className="min-w-0">
      <Heading id="sheet" aside="choose a part or a point, then tap its place">
        {sheet.name}
      </Heading>
      <div className="flex flex-wrap items-end gap-3 py-2">
        <Field label="Part or point" className="w-[280px]">
          <select className={FIELD} value={part} onChange={(event) => setPart(event.target.value)}>
            <optgroup label="Parts">
              {parts.map(({ ref, label }) => (
                <option key={ref} value={ref}>
                  {ref} {label}
                </option>
              ))}
            </optgroup>
            <optgroup label="Points, where a probe goes">
              {points.map((node) => (
                <option key={node} value={`${POINT_PIN}${node}`}>
                  {node}
                </option>
              ))}
            </optgroup>
          </select>
        </Field>
        {pinned ? (
          <PlainKey onClick={async () => onTrouble((await sent(unpinPart(code, sheet.id, part))).trouble)}>
            Take its pin off
          </PlainKey>
        ) : null}
        <PlainKey
          className="ml-auto"
          onClick={async () => onTrouble((await sent(dropSheet(code, sheet.id))).trouble)}
        >
          Take the sheet out
        </PlainKey>
      </div>
      <div className="relative overflow-hidden border-[1.5px] border-edge">
        <button
          type="button"
          className="block w-full cursor-crosshair"
          aria-label={`Pin ${pinWords(part)} here`}
          onClick={(event) => void place(event)}
        >
          {/* eslint-disable-next-line @next/next/no-img-element -- kept by content and served once */}
          <img
            ref={picture}
            src={`/api/photos/${sheet.photo}`}
            alt={`Drawing ${sheet.name}`}
            className="block w-full"
          />
        </button>
        {sheet.pins.map((pin) => (
          <button
            key={pin.part}
            type="button"
            onClick={() => setPart(pin.part)}
            aria-pressed={pin.part === part}
            style={{ left: `${pin.x * 100}%`, top: `${pin.y * 100}%` }}
            className="fig-bold absolute flex min-h-8 -translate-x-1/2 -translate-y-1/2 items-center border-2 border-pencil bg-sheet px-2 text-[15px] text-pencil aria-pressed:bg-pencil aria-pressed:text-sheet"
          >
            {pinWords(pin.part)}
          </button>
        ))}
      </div>
    </section>
  );
}

const pinWords = (pin: string) => (pin.startsWith(POINT_PIN) ? pin.slice(POINT_PIN.length) : pin);
