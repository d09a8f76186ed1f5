'use client';

import { useEffect, useRef, useState } from 'react';
import { heardBeside } from '@/core/trace/clicks';
import type { Trace } from '@/core/trace/trace';
import { channelTrace, readTraceText, type TraceFile } from '@/formats/traceFile';
import { FIELD, PlainKey } from '@/ui/sheet';
import { readTrace } from '@/workers/traceClient';
import { FileKey } from './FileKey';

/** A file, or points that are typed or pasted; and a second one of when it was sound. */
export function BringTrace({
  onBrought,
  onTrouble,
  onSound,
}: {
  /** `heard`: when something sharp was heard on a channel beside it, seconds. */
  onBrought: (trace: Trace, source: string, heard?: number[]) => void;
  onTrouble: (words: string) => void;
  onSound: (trace: Trace, source: string) => void;
}) {
  const [typing, setTyping] = useState(false);
  const [text, setText] = useState('');
  const [file, setFile] = useState<{ read: TraceFile; name: string; take: typeof onBrought } | null>(null);
  const [reading, setReading] = useState(false);
  const cancel = useRef<(() => void) | null>(null);
  useEffect(() => () => cancel.current?.(), []);

  const bring = async (chosen: File | undefined, take: typeof onBrought) => {
    if (!chosen) return;
    setReading(true);
    const run = readTrace(chosen, chosen.name);
    cancel.current = run.cancel;
    const answer = await run.answer;
    setReading(false);
    if (!answer.ok) return onTrouble(`${chosen.name}: ${answer.message}`);
    const { channels } = answer.value;
    setFile(channels.length > 1 ? { read: answer.value, name: chosen.name, take } : null);
    takeChannel(answer.value, chosen.name, 0, take);
  };
  const takeChannel = (read: TraceFile, name: string, at: number, take: typeof onBrought) =>
    take(
      channelTrace(read, at),
      at === 0 ? name : `${name}, ${read.channels[at]!.name}`,
      heardBeside(read.seconds, read.channels, at),
    );
  const takeTyped = () => {
    try {
      onBrought(channelTrace(readTraceText(text), 0), 'typed points');
      setTyping(false);
    } catch (error) {
      onTrouble(`${error instanceof Error ? error.message : String(error)}.`);
    }
  };
  return (
    <div className="flex flex-col gap-2 py-2">
      <div className="flex flex-wrap items-center gap-3">
        <FileKey
          label={reading ? 'Reading it' : 'Bring a trace (CSV or WAV)'}
          onFile={(one) => void bring(one, onBrought)}
        />
        <FileKey label="One of when it was sound" onFile={(one) => void bring(one, onSound)} />
        <PlainKey aria-expanded={typing} onClick={() => setTyping(!typing)}>
          Type points
        </PlainKey>
      </div>
      {file ? (
        <label className="flex flex-wrap items-center gap-2 text-[16.5px]">
          Channel of {file.name}
          <select
            className={`${FIELD} w-auto!`}
            onChange={({ target }) => takeChannel(file.read, file.name, Number(target.value), file.take)}
          >
            {file.read.channels.map(({ name }, at) => (
              <option key={name} value={at}>
                {name}
              </option>
            ))}
          </select>
        </label>
      ) : null}
      {typing ? (
        <>
          <label className="text-[16.5px]">
            Seconds and amps, one pair a line
            <textarea
              className={`${FIELD} fig mt-1 h-[130px]! py-2`}
              value={text}
              onChange={({ target }) => setText(target.value)}
              placeholder={'0.000, 0.00\n0.002, 0.41'}
            />
          </label>
          <div>
            <PlainKey onClick={takeTyped}>Draw it</PlainKey>
          </div>
        </>
      ) : null}
    </div>
  );
}
