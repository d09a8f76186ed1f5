'use client';

import { useEffect, useRef, useState } from 'react';
import type { CircuitModel } from '@/core/circuit/model';
import type { Test } from '@/core/circuit/schema';
import { modeFor, suits } from '@/core/instrument/meterMode';
import type { MeterReport } from '@/core/instrument/meterReport';
import { meterText } from '@/core/instrument/meterText';
import { MOST_RECORDED_SECONDS, Recording, traceOfRecorded } from '@/core/instrument/recorded';
import type { Trace } from '@/core/trace/trace';
import { PlainKey } from '@/ui/sheet';
import { recordingWords } from '@/words/en/traces';
import { LiveLine } from '../meter/LiveLine';
import { keptSource, type LiveSource } from '../meter/liveSource';
import { followMeter } from '../meter/followMeter';

/** Values of the chosen meter, one after another as fast as it gives them, until it is stopped: a trace. Nothing where figures are typed. */
export function RecordTrace({
  model,
  machine,
  functionName,
  test,
  onBrought,
  onTrouble,
}: {
  model: CircuitModel;
  machine: string;
  functionName: string;
  /** What is clamped, in the position in which it is switched on. */
  test: Extract<Test, { kind: 'amps' }>;
  onBrought: (trace: Trace, source: string) => void;
  onTrouble: (words: string | null) => void;
}) {
  const [source] = useState<LiveSource>(keptSource);
  const [running, setRunning] = useState(false);
  const [report, setReport] = useState<MeterReport | null>(null);
  const [seconds, setSeconds] = useState(0);
  const recording = useRef(new Recording());
  const name = useRef('meter');
  const wanted = modeFor(model, test)!;

  const stop = () => {
    setRunning(false);
    setReport(null);
    try {
      onBrought(traceOfRecorded(recording.current.samples, wanted), `${name.current}, recorded`);
    } catch (error) {
      onTrouble(
        `The ${error instanceof Error ? error.message.replace(/^meter: /, 'meter ') : String(error)}.`,
      );
    }
  };
  const finish = useRef(stop);
  useEffect(() => {
    finish.current = stop;
  });

  useEffect(() => {
    if (!running || source.from === 'typed') return;
    return followMeter(source, { machine, function: functionName }, test, 'recording', (told) => {
      if (told.name) name.current = told.name;
      recording.current.take(told.samples, told.count);
      setReport(told);
      setSeconds(recording.current.seconds);
      if (recording.current.seconds >= MOST_RECORDED_SECONDS) finish.current();
    });
  }, [running, source, machine, functionName, test]);

  if (source.from === 'typed') return null;
  const last = report?.samples.at(-1);
  const isOff = report && last && !suits(last.mode, wanted);
  return (
    <div className="flex flex-wrap items-center gap-3 pb-2" data-testid="record">
      {running ? (
        <button
          type="button"
          onClick={stop}
          className="min-h-11 bg-pencil px-5 text-[17px] font-[750] text-sheet"
        >
          Stop and draw it
        </button>
      ) : (
        <PlainKey
          onClick={() => {
            recording.current = new Recording();
            setSeconds(0);
            onTrouble(null);
            setRunning(true);
          }}
        >
          Record from the meter
        </PlainKey>
      )}
      {isOff ? (
        <LiveLine live={{ is: 'wrongDial', stands: last.mode, wanted, turns: report.turns }} />
      ) : running ? (
        <span className="text-[16.5px]" role="status">
          {recordingWords({
            lost: report?.lost ?? null,
            shown: last ? meterText(last) : null,
            seconds,
            count: recording.current.samples.length,
          })}
        </span>
      ) : null}
    </div>
  );
}
