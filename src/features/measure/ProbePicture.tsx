'use client';

import { useEffect, useMemo, useState } from 'react';
import type { Test } from '@/core/circuit/schema';
import { closeUp, probePlace, type PinnedSheet, type ProbePlace } from '@/core/path/probePlaces';
import { SheetDialog } from '@/ui/SheetDialog';
import { useDesk } from '../desk/desk';
import { pinnedSheets } from '../drawings/actions';
import { sent } from '../sent';

/** Pictures of a machine, asked for once while its jobs are open. */
const known = new Map<string, Promise<readonly PinnedSheet[]>>();

function sheetsOf(machine: string): Promise<readonly PinnedSheet[]> {
  let asked = known.get(machine);
  if (!asked) {
    asked = sent(pinnedSheets(machine)).then((answer) => {
      if (!('trouble' in answer)) return answer.sheets;
      // Away from the server, or refused by it: asked again with the next test.
      known.delete(machine);
      return [];
    });
    known.set(machine, asked);
  }
  return asked;
}

/** The machine's own picture where the test is taken, with a mark for each lead; nothing where no picture shows it. */
export function ProbePicture({ test }: { test: Test }) {
  const { speaker, job } = useDesk();
  const [sheets, setSheets] = useState<readonly PinnedSheet[]>([]);
  const [large, setLarge] = useState(false);
  useEffect(() => {
    let left = false;
    void sheetsOf(job.machineCode).then((found) => {
      if (!left) setSheets(found);
    });
    return () => {
      left = true;
    };
  }, [job.machineCode]);
  const place = useMemo(() => probePlace(speaker.model, test, sheets), [speaker, test, sheets]);
  if (!place) return null;
  return (
    <li className="list-none pt-1.5">
      <button
        type="button"
        onClick={() => setLarge(true)}
        aria-label={`Where it is: ${place.sheet.name}. Show it large`}
        className="block h-[104px] w-full overflow-hidden border-[1.5px] border-edge bg-well"
        data-testid="probe-picture"
      >
        <Close place={place} />
      </button>
      {large ? (
        <SheetDialog open onOpenChange={setLarge} title={place.sheet.name}>
          <div className="h-[60dvh] bg-well">
            <Close place={place} />
          </div>
        </SheetDialog>
      ) : null}
    </li>
  );
}

const LEAD_WORDS = { plus: 'red', minus: 'black', one: 'here' } as const;
const BADGE = { plus: '+', minus: '−', one: '' } as const;

/** The stretch of the picture around its marks, as large as its frame lets it be. */
function Close({ place: { sheet, marks } }: { place: ProbePlace }) {
  const [frame, setFrame] = useState<HTMLSpanElement | null>(null);
  const [ratio, setRatio] = useState<number | null>(null);
  const { x, y, zoom } = closeUp(marks);
  const box = frame?.getBoundingClientRect();
  // The picture covers its frame before it is enlarged, and its middle goes where the marks are.
  const cover = box && ratio ? Math.max(box.width, box.height * ratio) : 0;
  const [width, height] = [cover * zoom, ratio ? (cover * zoom) / ratio : 0];
  const shift = (size: number, of: number, at: number) =>
    Math.min(0, Math.max(size - of, size / 2 - at * of));
  const [left, top] = box ? [shift(box.width, width, x), shift(box.height, height, y)] : [0, 0];
  return (
    <span ref={setFrame} className="relative block size-full overflow-hidden">
      {/* eslint-disable-next-line @next/next/no-img-element -- kept by content and served once */}
      <img
        src={`/api/photos/${sheet.photo}`}
        alt=""
        draggable={false}
        onLoad={({ currentTarget }) => setRatio(currentTarget.naturalWidth / currentTarget.naturalHeight)}
        style={{ width, height, left, top }}
        className="absolute max-w-none"
      />
      {ratio
        ? marks.map((mark) => (
            <span
              key={mark.lead}
              title={LEAD_WORDS[mark.lead]}
              style={{ left: left + mark.x * width, top: top + mark.y * height }}
              className={`fig-bold absolute flex size-7 -translate-x-1/2 -translate-y-1/2 items-center justify-center rounded-full border-[3px] border-sheet text-[17px] text-sheet ${
                mark.lead === 'minus' ? 'bg-ink' : 'bg-pencil'
              }`}
            >
              {BADGE[mark.lead]}
            </span>
          ))
        : null}
    </span>
  );
}
