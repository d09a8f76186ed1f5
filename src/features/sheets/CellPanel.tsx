'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import type { Reading } from '@/core/circuit/schema';
import { cautionsOf } from '@/core/diagnosis/cautionsOf';
import type { JobSheet, SheetCell } from '@/core/sheets/onCircuit/jobSheet';
import { cautionsOfRow } from '@/core/sheets/onCircuit/pastedColumn';
import { Heading, Hold, PlainKey } from '@/ui/sheet';
import { shutWords } from '@/words/en/holds';
import { forcedItem } from '@/words/en/ledger';
import { modeName, testPlace, valueWords } from '@/words/en/readings';
import { cellTitle } from '@/words/en/sheets';
import { useDesk } from '../desk/desk';
import { SetupSteps } from '../desk/SetupSteps';
import { StepLink } from '../desk/StepLink';
import { HoldRow } from '../measure/HoldRow';
import { useHold } from '../measure/useHold';
import { CellAnswer } from './CellAnswer';
import { CellPast } from './CellPast';
import { TimedRun } from './TimedRun';

/** What was just written, to be said and to be taken back in one. */
export interface JustPinned {
  words: string;
  /** Ids of its entries. */
  entries: readonly string[];
}

/** One cell: how it is read, what holds it back, and its answer. What is typed is a reading of the job like any other. */
export function CellPanel({
  sheet,
  at,
  cell,
  celsius,
  onCelsius,
  follows,
  onPinned,
  onLeave,
}: {
  sheet: JobSheet;
  at: readonly [number, number];
  cell: SheetCell;
  /** How warm windings are, as it was typed. */
  celsius: string;
  onCelsius: (typed: string) => void;
  /** Comes after one that was just pinned: the hands stay on the keys. */
  follows: boolean;
  onPinned: (pinned: JustPinned) => void;
  /** On to what the sheet asks for next. */
  onLeave: () => void;
}) {
  const { speaker } = useDesk();
  const [atFirst] = useState(cell.reading);
  const { test } = cell;
  /** The wire is recorded through its whole sequence: all that holds any moment of it is asked for at once. */
  const [whole, setWhole] = useState(false);
  const row = at[0];
  const asked = useMemo(
    () => ({
      test,
      cautions: whole ? cautionsOfRow(speaker.model, sheet, row) : cautionsOf(speaker.model, test),
    }),
    [speaker, test, whole, sheet, row],
  );
  const hold = useHold(asked);
  const shut = shutWords(hold.gate);
  const panel = useAnswerFocus(follows, hold);
  return (
    <div ref={panel}>
      <Heading id="cell" aside={modeName(speaker, test)}>
        {cellTitle(speaker, sheet, at)}
      </Heading>
      <CellFigures cell={cell} />
      {cell.reading === null ? null : <Unpin cell={cell} />}
      <CellPast cell={cell} />
      {cell.reading !== null && cell.reading !== atFirst ? (
        <ReadMeanwhile cell={cell} onLeave={onLeave} />
      ) : null}
      {sheet.name === 'proofChain' ? <Forced output={sheet.rows[row]!.name} /> : null}
      <SetupSteps test={test} />
      {shut ? (
        <>
          <Hold>
            {shut.what} {shut.why}
          </Hold>
          <StepLink
            step="make-safe"
            className="mt-2 inline-block min-h-11 py-2.5 underline underline-offset-4"
          >
            Make safe
          </StepLink>
        </>
      ) : (
        <>
          <HoldRow hold={hold} />
          {test.kind === 'insulation' && !hold.blocked ? <TimedRun sheet={sheet} cell={cell} /> : null}
          <CellAnswer
            sheet={sheet}
            at={at}
            cell={cell}
            hold={hold}
            celsius={celsius}
            onCelsius={onCelsius}
            whole={whole}
            onWhole={(open) => {
              setWhole(open);
              // What was said to be clear was said of one moment.
              if (open !== whole) hold.tick(false);
            }}
            onPinned={onPinned}
          />
        </>
      )}
    </div>
  );
}

/** Where it is read, what a sound machine shows there, and what was read. */
function CellFigures({ cell: { test, expected, value, wandered } }: { cell: SheetCell }) {
  const { speaker } = useDesk();
  const words = (one: Reading['value']) => valueWords(test.kind, one, speaker.gaugeUnit);
  return (
    <p className="pt-2 text-[17px]">
      <span className="fig-bold">{testPlace(speaker, test)}</span>, sound{' '}
      <span className="fig">{words(expected)}</span>
      {value === null ? null : (
        <>
          , read <span className="fig-bold">{words(value)}</span>
          {wandered ? (
            <>
              , wandering over <span className="fig">{wandered.map(words).join(', ')}</span>
            </>
          ) : null}
        </>
      )}
    </p>
  );
}

/** Moves the focus to what a cell waits for, its hold or its answer: once it follows on another, and once its hold was ticked. */
function useAnswerFocus(follows: boolean, { held, blocked }: ReturnType<typeof useHold>) {
  const panel = useRef<HTMLDivElement>(null);
  const wanted = useRef(follows);
  useEffect(() => {
    if (!wanted.current && !held) return;
    const waits = blocked ? '[data-hold]:not(:checked)' : '[data-answer]';
    panel.current?.querySelector<HTMLElement>(waits)?.focus();
  }, [held, blocked]);
  return panel;
}

/** Takes a cell's reading back, every value of a display that wandered; the record keeps both. */
function Unpin({ cell }: { cell: SheetCell }) {
  const { log } = useDesk();
  const last = cell.reading!;
  const run = log.state.readings.slice(last + 1 - (cell.wandered?.length ?? 1), last + 1);
  return (
    <PlainKey
      className="mt-1"
      onClick={() => {
        for (const { entry } of run) log.write({ type: 'withdrawal', supersedes: entry.id, body: {} });
      }}
    >
      Take it back
    </PlainKey>
  );
}

/** Two people on one sheet: the other was quicker here. What this one has typed stays, and may be pinned beside it. */
function ReadMeanwhile({ cell, onLeave }: { cell: SheetCell; onLeave: () => void }) {
  const { log, person, speaker } = useDesk();
  const { entry } = log.state.readings[cell.reading!]!;
  const who = entry.person === person ? 'You, on another device,' : entry.person;
  return (
    <div className="flex flex-wrap items-center gap-2 pt-2" role="status" data-testid="meanwhile">
      <p className="text-[16px] font-[650]">
        {who} read this meanwhile: {valueWords(cell.test.kind, cell.value!, speaker.gaugeUnit)}.
      </p>
      <PlainKey onClick={onLeave}>Leave it at that</PlainKey>
    </div>
  );
}

/** An output that is set on the controller's own page stays set when everybody has gone: it goes into the ledger with one press. */
function Forced({ output }: { output: string }) {
  const { log } = useDesk();
  const item = forcedItem(output);
  const stands = log.state.ledger.some(({ entry, out }) => entry.body.item === item && !out);
  return stands ? (
    <p className="pt-2 text-[15.5px] text-ink2">{item}: in the ledger until it is shown to be off.</p>
  ) : (
    <PlainKey
      className="mt-2"
      onClick={() => log.write({ type: 'ledger', body: { item, kind: 'override' } })}
    >
      {output} is overridden on its page: keep it in the ledger
    </PlainKey>
  );
}
