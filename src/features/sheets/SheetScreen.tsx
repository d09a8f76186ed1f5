'use client';

import { useMemo, useState } from 'react';
import { useSearchParams } from 'next/navigation';
import type { CoilAnswer } from '@/core/sheets/coil/coil';
import { jobSheet } from '@/core/sheets/onCircuit/build';
import { cellKeys, JOB_SHEETS, type JobSheet, type JobSheetName } from '@/core/sheets/onCircuit/jobSheet';
import { writeSheetTable } from '@/formats/sheetTable';
import { PrintKey } from '@/ui/PrintKey';
import { useUndoKeys } from '@/ui/useUndoKeys';
import { saveText } from '@/ui/saveText';
import { Heading, Nothing, PlainKey } from '@/ui/sheet';
import type { Outlook } from '@/workers/protocol';
import { namedLine } from '@/words/en/findings';
import type { Speaker } from '@/words/en/readings';
import { bearingWords, sheetFoundWords } from '@/words/en/sheetFound';
import { rowTitle, SHEET_TITLE } from '@/words/en/sheets';
import { useDesk } from '../desk/desk';
import { StepLayout } from '../desk/StepLayout';
import { StepLink } from '../desk/StepLink';
import { SuspectList } from '../measure/SuspectList';
import { InMachine } from '../prove/InMachine';
import { HeldAgainst } from '../tables/HeldAgainst';
import { CoilAmong } from './CoilAmong';
import { CellPanel, type JustPinned } from './CellPanel';
import { ConductorGrid } from './ConductorGrid';
import { LiftList } from './LiftList';
import { SheetGrid } from './SheetGrid';
import { SheetNav } from './SheetNav';

/** The sheet that an address names; none where it names no sheet. */
export function sheetOf(value: string | null): JobSheetName | null {
  return JOB_SHEETS.find((name) => name === value) ?? null;
}

/** A sheet of the job: many readings beside each other, each a test of its own, with the one that matters next. */
export function SheetScreen() {
  const { speaker, readings, job } = useDesk();
  const { marks, past } = job;
  const name = sheetOf(useSearchParams().get('sheet')) ?? 'coil';
  const { model } = speaker;
  const sheet = useMemo(
    () => jobSheet(model, name, readings, marks, past),
    [model, name, readings, marks, past],
  );
  return <OpenSheet key={name} name={name} sheet={sheet} />;
}

function OpenSheet({ name, sheet }: { name: JobSheetName; sheet: JobSheet | null }) {
  const { speaker, job, outlook, working } = useDesk();
  const [open, setOpen] = useState<string | null>(null);
  // By its test: another's reading may bring a column or a row, and what is typed must not move to the cell beside it.
  const [chosen, setChosen] = useState<string | null>(null);
  const [pinned, setPinned] = useState<JustPinned | null>(null);
  // Windings of one machine are about as warm as each other: what was typed for one stands for the next.
  const [celsius, setCelsius] = useState('');
  const at = (sheet && chosen !== null ? placeOf(sheet, chosen) : null) ?? sheet?.next ?? null;
  const among = sheet && coilShown(sheet, at);
  const Grid = name === 'conductors' ? ConductorGrid : SheetGrid;
  const cell = at && sheet ? (sheet.rows[at[0]]?.cells[at[1]] ?? null) : null;
  return (
    <StepLayout
      left={
        <>
          <SheetNav name={name} />
          <section aria-labelledby="sheet">
            <Heading id="sheet">{SHEET_TITLE[name]}</Heading>
            {sheet ? (
              <>
                <div className="py-2 text-[18px] leading-[24px] font-[650]" data-testid="found">
                  {sheetFoundWords(speaker, sheet, outlook?.diagnosis.suspects).map((line) => (
                    <p key={line}>{line}</p>
                  ))}
                </div>
                <ByAll speaker={speaker} outlook={outlook} />
                {name === 'insulation' ? <LiftList sheet={sheet} /> : null}
                <Grid sheet={sheet} at={at} onChoose={(place) => setChosen(keyOf(sheet, place))} />
                {/* All of it comes off once, and the picture is what one comes back to. */}
                {name === 'conductors' ? <LiftList sheet={sheet} /> : null}
                {among ? (
                  <CoilAmong name={among.row.name} coil={among.coil} answer={among.answer as CoilAnswer} />
                ) : null}
                {(sheet.bearing ?? []).map((found) => (
                  <p key={JSON.stringify(found)} className="pt-2 text-[16px]" data-testid="bearing">
                    {bearingWords(found)}
                  </p>
                ))}
                <HeldAgainst rows={sheet.held ?? []} />
                <div className="flex gap-2 pt-3 print:hidden">
                  <PlainKey
                    onClick={() =>
                      saveText(
                        `job-${job.number}-${name}.csv`,
                        'text/csv',
                        writeSheetTable(sheet, (row) => rowTitle(speaker, sheet, row)),
                      )
                    }
                  >
                    Keep as CSV
                  </PlainKey>
                  <PrintKey className="" />
                </div>
              </>
            ) : (
              <Nothing>This circuit has nothing for this sheet.</Nothing>
            )}
          </section>
        </>
      }
      right={
        <section aria-labelledby="cell" className="pt-3 print:hidden">
          <JustPinnedLine pinned={pinned} onTakenBack={setPinned} />
          {cell && sheet && at ? (
            // Whoever has begun with a cell stays at it: somebody else's reading must not take the field away from under the hands.
            <div onInput={() => setChosen(keyOf(sheet, at))}>
              <CellPanel
                key={keyOf(sheet, at)}
                sheet={sheet}
                at={at}
                cell={cell}
                celsius={celsius}
                onCelsius={setCelsius}
                follows={pinned !== null && pinned.entries.length > 0}
                onPinned={(written) => {
                  setPinned(written);
                  setChosen(null);
                }}
                onLeave={() => setChosen(null)}
              />
            </div>
          ) : (
            <>
              <Heading id="cell">Nothing more to read here</Heading>
              <StepLink
                step="test"
                className="mt-3 inline-flex min-h-11 items-center bg-pencil px-5 text-[17px] font-[750] text-sheet"
              >
                Go on with the next test
              </StepLink>
            </>
          )}
          <div className="flex flex-col gap-4 pt-4 print:hidden">
            <InMachine />
            <SuspectList
              speaker={speaker}
              outlook={outlook}
              readings={outlook?.readings ?? []}
              stale={working}
              openPart={open}
              onOpen={setOpen}
            />
          </div>
        </section>
      }
    />
  );
}

/** What was pinned last, and the way back from it: by its key, or Ctrl Z outside of a field. The record keeps both. */
function JustPinnedLine({
  pinned,
  onTakenBack,
}: {
  pinned: JustPinned | null;
  onTakenBack: (said: JustPinned) => void;
}) {
  const { log } = useDesk();
  const standing = log.state.readings.filter(({ entry }) => pinned?.entries.includes(entry.id));
  const takeBack = () => {
    for (const { entry } of standing) log.write({ type: 'withdrawal', supersedes: entry.id, body: {} });
    onTakenBack({ words: 'Taken back. It stays in the record.', entries: [] });
  };
  useUndoKeys({ enabled: standing.length > 0, undo: takeBack, redo: null });
  return (
    <div className="flex min-h-6 flex-wrap items-center gap-3">
      <p className={pinned === null ? 'sr-only' : 'text-[16px] text-ink2'} role="status" aria-live="polite">
        {pinned?.words}
      </p>
      {standing.length > 0 ? <PlainKey onClick={takeBack}>Undo</PlainKey> : null}
    </div>
  );
}

/** What all readings of the job prove together: a sheet says only what its own cells decide, and need not be filled for the rest. */
function ByAll({ speaker, outlook }: { speaker: Speaker; outlook: Outlook | null }) {
  if (!outlook) return null;
  const { verdict, suspects } = outlook.diagnosis;
  if (verdict.state !== 'name') return null;
  return (
    <p className="pb-2 text-[16px]" data-testid="by-all">
      By all readings of this job: {namedLine(speaker, verdict, suspects)}
    </p>
  );
}

/** Where the cell of a key stands now; null where it stands no more. */
function placeOf(sheet: JobSheet, key: string): [number, number] | null {
  return cellKeys(sheet).find((one) => one.key === key)?.at ?? null;
}

function keyOf(sheet: JobSheet, [row, column]: readonly [number, number]): string | null {
  return cellKeys(sheet).find(({ at: [r, c] }) => r === row && c === column)?.key ?? null;
}

/** The winding that is looked at: the chosen one, else the first that is not as it should be, else the first. */
function coilShown(sheet: JobSheet, at: readonly [number, number] | null) {
  const bad = sheet.rows.findIndex(({ verdict }) => verdict !== null && verdict !== 'good');
  const r = at?.[0] ?? Math.max(bad, 0);
  const coil = sheet.coils?.[r];
  return coil ? { coil, row: sheet.rows[r]!, answer: sheet.answers[r]! } : null;
}
