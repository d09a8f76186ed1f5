'use client';

import { useState } from 'react';
import type { Reading, Test } from '@/core/circuit/schema';
import { testGate } from '@/core/job/rules/testGate';
import { readingKind } from '@/core/kinds/reading';
import type { JobSheet, SheetCell } from '@/core/sheets/onCircuit/jobSheet';
import { placeColumn, placeRow } from '@/core/sheets/onCircuit/pastedColumn';
import { parseCelsius } from '@/core/units/parseCelsius';
import { PlainKey } from '@/ui/sheet';
import { capital } from '@/words/en/capital';
import { pinnedWords, valueWords } from '@/words/en/readings';
import { columnWords, rowTitle } from '@/words/en/sheets';
import { useDesk } from '../desk/desk';
import { FigureForm, type TypedFigure } from '../desk/FigureForm';
import { WarmAt } from '../desk/WarmAt';
import { choicesOf } from '../measure/Keyline';
import { readWith } from '../measure/meterProfile';
import type { useHold } from '../measure/useHold';
import { useMeter } from '../measure/useMeter';
import type { JustPinned } from './CellPanel';
import { PastedColumn } from './PastedColumn';
import { TracedWire } from './TracedWire';

/** What a cell was answered with. */
type Pinned = Omit<TypedFigure, 'value' | 'wandered'> & {
  value: Reading['value'];
  wandered?: readonly Reading['value'][];
};

interface CellAnswerProps {
  sheet: JobSheet;
  at: readonly [number, number];
  cell: SheetCell;
  hold: ReturnType<typeof useHold>;
  celsius: string;
  onCelsius: (typed: string) => void;
  /** The wire is recorded through its whole sequence. */
  whole: boolean;
  onWhole: (whole: boolean) => void;
  onPinned: (pinned: JustPinned) => void;
}

/** The answer of one cell, or of all that was pasted or recorded beginning at it. */
export function CellAnswer({ onPinned, ...props }: CellAnswerProps) {
  const { sheet, at, cell, hold, celsius } = props;
  const { speaker, log, job } = useDesk();
  const [column, setColumn] = useState<(Pinned | null)[] | null>(null);
  /** What a trace of the wire showed at each moment. */
  const [along, setAlong] = useState<Pinned[] | null>(null);
  const warmth = warmthOf(sheet, at[0], cell.test);
  const warm = warmth && celsius.trim() !== '' ? parseCelsius(celsius) : undefined;
  const write = usePinned(typeof warm === 'number' ? warm : undefined);
  if (hold.blocked)
    return (
      <div className="py-3">
        <p className="text-[16.5px] text-ink2">Tick “Clear” first.</p>
      </div>
    );
  const isOpen = (one: Test) => testGate(speaker.model, hold.plan, log.state, one, job.me).state === 'free';
  const lines = along
    ? placeRow(sheet, at[0], along, isOpen)
    : column && placeColumn(speaker.model, sheet, at, column, isOpen);
  return (
    <div className="py-3">
      {lines ? (
        <PastedColumn
          sheet={sheet}
          lines={lines}
          onPin={(taken) => {
            const entries = taken.flatMap((line) => write(line.test, line.figure));
            onPinned({ words: `Pinned ${taken.length} readings.`, entries });
          }}
          onLeave={() => {
            setColumn(null);
            setAlong(null);
          }}
        />
      ) : (
        <OneAnswer
          {...props}
          warmth={warmth}
          warm={warm}
          onColumn={setColumn}
          onAlong={setAlong}
          onPin={(one) =>
            onPinned({
              words: pinnedWords(speaker, cell.test, one.value),
              entries: write(cell.test, one),
            })
          }
        />
      )}
    </div>
  );
}

/** A figure, with how warm it was where that counts, or one of the things that can be seen. */
function OneAnswer({
  sheet,
  at,
  cell: { test },
  celsius,
  onCelsius,
  whole,
  onWhole,
  warmth,
  warm,
  onColumn,
  onAlong,
  onPin,
}: Omit<CellAnswerProps, 'hold' | 'onPinned'> & {
  warmth: ReturnType<typeof warmthOf>;
  /** Null where it was typed and is no temperature. */
  warm: number | null | undefined;
  onColumn: (column: (Pinned | null)[]) => void;
  onAlong: (along: Pinned[]) => void;
  onPin: (pinned: Pinned) => void;
}) {
  const { speaker } = useDesk();
  const { shows } = readingKind(test.kind);
  const words = (value: Reading['value']) => valueWords(test.kind, value, speaker.gaugeUnit);
  if (shows.is !== 'figure')
    return (
      <span className="flex" role="group" aria-label="What it did">
        {(choicesOf({ test, outcomes: [] }) ?? []).map((value) => (
          <PlainKey
            key={String(value)}
            data-answer
            className="-ml-[1.5px]"
            onClick={() => onPin({ value, typed: words(value) })}
          >
            {words(value)}
          </PlainKey>
        ))}
      </span>
    );
  return (
    <>
      {warmth ? <WarmAt what={warmth} typed={celsius} wrong={warm === null} onType={onCelsius} /> : null}
      {warm === null ? null : (
        <FigureForm
          quantity={shows.quantity}
          label={`${columnWords(sheet.columns[at[1]]!)}, ${rowTitle(speaker, sheet, sheet.rows[at[0]]!)}`}
          takesOverRange={shows.over !== Infinity}
          takesWandering
          largeKeys
          onPin={onPin}
          onColumn={onColumn}
        />
      )}
      {sheet.name === 'timeline' ? (
        <TracedWire sheet={sheet} open={whole} onOpen={onWhole} onRead={onAlong} />
      ) : null}
      {test.kind === 'changes' ? (
        <PlainKey className="mt-2" onClick={() => onPin({ value: 'OL', typed: words('OL') })}>
          {capital(words('OL'))}
        </PlainKey>
      ) : null}
    </>
  );
}

/** What of a cell changes with its warmth so that it is asked; null where nothing does. */
function warmthOf(sheet: JobSheet, row: number, { kind }: Test): 'Winding' | 'Insulation' | null {
  if (kind === 'ohms' && sheet.coils?.[row]) return 'Winding';
  return kind === 'insulation' ? 'Insulation' : null;
}

/** Writes an answer as readings of the job, by the meter in the hand; gives the ids of its entries. */
function usePinned(celsius: number | undefined): (test: Test, pinned: Pinned) => string[] {
  const { log } = useDesk();
  const [meter] = useMeter();
  return (test, { value, typed, wandered }) =>
    (wandered ?? [value]).map((one) => {
      const reading = readWith(meter, test, one, {
        ...(celsius === undefined ? {} : { celsius }),
        ...(wandered ? { unsteady: true } : {}),
      });
      return log.write({ type: 'reading', body: { reading, typed } }).id;
    });
}
