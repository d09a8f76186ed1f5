'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import type { JobSheet } from '@/core/sheets/onCircuit/jobSheet';
import type { TimelineAnswer } from '@/core/sheets/onCircuit/timelineSheet';
import { pacedMoments, readAlong } from '@/core/sheets/onCircuit/tracedWire';
import { parseFigure } from '@/core/units/parseFigure';
import { significant } from '@/core/units/significant';
import { channelTrace } from '@/formats/traceFile';
import { FIELD, Trouble } from '@/ui/sheet';
import { paceWords } from '@/words/en/sheets';
import { readTrace } from '@/workers/traceClient';
import { useDesk } from '../desk/desk';
import { FileKey } from '../trace/FileKey';

const USUAL_PACE = 3;
const DIGITS = 3;

/** A wire's volts recorded while the whole sequence is run through at a steady pace: what it carried at each moment, in one go. */
export function TracedWire({
  sheet,
  open,
  onOpen,
  onRead,
}: {
  sheet: JobSheet;
  open: boolean;
  onOpen: (open: boolean) => void;
  onRead: (along: { value: number; typed: string }[]) => void;
}) {
  const { speaker } = useDesk();
  const { moments } = sheet.answers[0] as TimelineAnswer;
  const [pace, setPace] = useState(String(USUAL_PACE));
  const [trouble, setTrouble] = useState<string | null>(null);
  const cancel = useRef<(() => void) | null>(null);
  useEffect(() => () => cancel.current?.(), []);
  const read = parseFigure(pace);
  const seconds = read.is === 'figure' ? read.value : NaN;
  const isPace = seconds >= 1 && seconds <= 60;
  const paced = useMemo(
    () => (isPace ? pacedMoments(speaker.model, moments, seconds) : null),
    [isPace, speaker.model, moments, seconds],
  );
  const end = Math.ceil(Math.max(0, ...(paced ?? []).map(({ to }) => to)));
  const bring = async (file: File | undefined) => {
    if (!file || !paced) return;
    const run = readTrace(file, file.name);
    cancel.current = run.cancel;
    const answer = await run.answer;
    if (!answer.ok) return setTrouble(`${file.name}: ${answer.message}`);
    if (answer.value.channels[0]?.quantity === 'amps')
      return setTrouble(`${file.name}: holds amps; what a wire carries is read in volts against the frame.`);
    try {
      const values = readAlong(channelTrace(answer.value, 0), paced);
      setTrouble(null);
      onRead(
        values.map((one) => {
          const value = significant(one, DIGITS);
          return { value, typed: `${value} V, of a trace` };
        }),
      );
    } catch (error) {
      const why = error instanceof Error ? error.message.replace(/^trace: /, '') : String(error);
      setTrouble(`${file.name}: ${why}.`);
    }
  };
  return (
    <details
      className="pt-3 text-[16.5px]"
      data-testid="traced-wire"
      open={open}
      onToggle={({ currentTarget }) => onOpen(currentTarget.open)}
    >
      <summary className="min-h-11 cursor-pointer py-2.5 underline-offset-4 hover:underline">
        Or record this wire through the whole sequence
      </summary>
      <label className="flex flex-wrap items-center gap-2">
        Something is turned every
        <input
          className={`${FIELD} fig w-[76px]!`}
          inputMode="decimal"
          value={pace}
          onChange={({ target }) => setPace(target.value)}
          aria-invalid={!isPace}
        />
        seconds
      </label>
      {paced ? (
        <ol className="py-2">
          {paced.map(({ turnSeconds }, k) =>
            turnSeconds === null && k > 0 ? null : (
              <li key={sheet.columns[k]} className="flex min-h-8 gap-3">
                <span className="fig w-[64px] text-right">{(turnSeconds ?? 0).toFixed(0)} s</span>
                <span>{paceWords(sheet.columns[k]!)}</span>
              </li>
            ),
          )}
          <li className="flex min-h-8 gap-3">
            <span className="fig w-[64px] text-right">{end.toFixed(0)} s</span>
            <span>done, recorder off</span>
          </li>
        </ol>
      ) : (
        <p className="py-2 text-stamp">Between 1 and 60 seconds.</p>
      )}
      <div className="flex">
        <FileKey label="Bring its volts (CSV)" onFile={(file) => void bring(file)} />
      </div>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </details>
  );
}
