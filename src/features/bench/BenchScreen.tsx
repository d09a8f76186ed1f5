'use client';

import { useMemo, useState } from 'react';
import { Link } from '@/ui/Link';
import type { SheetName } from '@/core/sheets/sheets';
import { Field, FIELD, Heading, PlainKey, Trouble } from '@/ui/sheet';
import { HeldAgainst } from '../tables/HeldAgainst';
import type { InsulationPass } from '@/core/tables/insulationPass';
import { shopMarks } from '@/core/tables/marks';
import { splitRule, type Rules } from '@/core/tables/ruleKey';
import { writeDocumentTable } from '@/formats/sheetTable';
import { saveText } from '@/ui/saveText';
import { PrintKey } from '@/ui/PrintKey';
import { useFilePicker } from '@/ui/useFilePicker';
import { sayAnswer } from '@/words/en/benchAnswers';
import { findingWords, nextWords } from '@/words/en/benchSheets';
import { BLANK, computeDraft, draftOf, type Draft } from './benchDraft';
import { BENCH_FORMS } from './benchSpecs';
import type { InsulationAnswer, InsulationSheet } from '@/core/sheets/insulation/insulation';
import dynamic from 'next/dynamic';
import { chartOf } from './benchCharts';
import type { CoilAnswer, CoilSheet } from '@/core/sheets/coil/coil';
import type { ContactsSheet } from '@/core/sheets/contacts/contacts';
import { CoilStrip } from './CoilStrip';
import { BenchField } from './BenchField';
import { DutyTimer } from './DutyTimer';
import { InsulationRunPanel } from './InsulationRunPanel';
import { InsulationMatrix } from './InsulationMatrix';
import { useUndoKeys } from '@/ui/useUndoKeys';
import { useKeptDraft } from './useKeptDraft';

/** Drawn on a canvas, which only a browser has. */
const SheetChartFigure = dynamic(() => import('./SheetChartFigure').then((one) => one.SheetChartFigure), {
  ssr: false,
});

/** A sheet by itself, for a part on the bench: what is typed on the left, what it comes to on the right, at once. */
export function BenchScreen({
  sheet,
  rules,
  equipment,
  insulationPass,
}: {
  sheet: SheetName;
  /** The shop's own figures; some of them for one class of equipment alone. */
  rules: Rules;
  equipment: readonly string[];
  insulationPass: InsulationPass;
}) {
  const [own, setOwn] = useState<string | null>(null);
  const marks = useMemo(
    () => shopMarks(rules, { equipment: own, insulationPass }),
    [rules, own, insulationPass],
  );
  const { draft, change: setDraft, undo, redo } = useKeptDraft(sheet);
  useUndoKeys({ enabled: true, undo, redo });
  const [trouble, setTrouble] = useState<string | null>(null);
  const result = useMemo(() => computeDraft(sheet, draft, marks), [sheet, draft, marks]);
  const blank = JSON.stringify(draft) === JSON.stringify(BLANK);
  const change = (next: Draft) => {
    setTrouble(null);
    setDraft(next);
  };
  const file = useFilePicker({
    label: 'Sheet from a file',
    accept: '.json,application/json',
    onFile: (chosen) =>
      chosen
        .text()
        .then((text) => change(draftOf(sheet, JSON.parse(text))))
        .catch((error: unknown) =>
          setTrouble(error instanceof Error ? error.message : 'This file cannot be read.'),
        ),
  });
  return (
    <div className="grid content-start gap-x-9 bg-film px-6 pb-10 max-tablet:px-3 desk:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]">
      <section aria-label="What was read" className="flex min-w-0 flex-col">
        <Heading>What was read</Heading>
        {Object.keys(rules).some((key) => splitRule(key).equipment !== null) ? (
          <Field label="The part is of" className="w-[300px] pt-2">
            <select
              className={FIELD}
              value={own ?? ''}
              onChange={(event) => setOwn(event.target.value === '' ? null : event.target.value)}
            >
              <option value="">any equipment</option>
              {equipment.map((one) => (
                <option key={one} value={one}>
                  {one}
                </option>
              ))}
            </select>
          </Field>
        ) : null}
        <div className="grid grid-cols-2 gap-x-3 gap-y-2 pt-2 max-tablet:grid-cols-1">
          {BENCH_FORMS[sheet].map((spec) => (
            <BenchField
              key={`${spec.kind} ${spec.label}`}
              spec={spec}
              draft={draft}
              asked={result.ok ? result.answer.next : null}
              onChange={change}
            />
          ))}
        </div>
        {sheet === 'coil' || sheet === 'contacts' ? (
          <DutyTimer sheet={result.ok ? (result.document as CoilSheet | ContactsSheet) : null} />
        ) : null}
        {sheet === 'insulation' ? (
          <InsulationRunPanel
            sheet={result.ok ? (result.document as InsulationSheet) : null}
            answer={result.ok ? (result.answer as unknown as InsulationAnswer) : null}
            onLine={({ from, to, typed, seconds }) => {
              const line = { from, to, ohms: typed, seconds: String(seconds) };
              change({
                ...draft,
                tables: { ...draft.tables, readings: [...(draft.tables['readings'] ?? []), line] },
              });
              return null;
            }}
          />
        ) : null}
        <div className="flex flex-wrap gap-2 pt-4 print:hidden">
          <PlainKey
            disabled={!result.ok}
            onClick={() =>
              result.ok &&
              saveText(`${sheet}.sheet.json`, 'application/json', JSON.stringify(result.document, null, 2))
            }
          >
            Keep as a file
          </PlainKey>
          <PlainKey
            disabled={!result.ok}
            onClick={() =>
              result.ok &&
              saveText(`${sheet}.csv`, 'text/csv', writeDocumentTable(result.document, result.answer))
            }
          >
            Keep as CSV
          </PlainKey>
          <PlainKey onClick={file.choose}>Open a file</PlainKey>
          {file.input}
          <PrintKey className="" />
          <PlainKey disabled={undo === null} title="Ctrl Z" onClick={() => undo?.()}>
            Undo
          </PlainKey>
          <PlainKey disabled={redo === null} title="Ctrl Y" onClick={() => redo?.()}>
            Redo
          </PlainKey>
          <PlainKey disabled={blank} onClick={() => change(BLANK)}>
            Clear the sheet
          </PlainKey>
        </div>
        {trouble ? <Trouble>{trouble}</Trouble> : null}
      </section>
      <section
        aria-label="What it says"
        className="min-w-0 max-desk:order-first desk:sticky desk:top-14 desk:self-start"
      >
        <Heading
          aside={
            <Link className="underline underline-offset-4 print:hidden" href="/bench">
              All sheets
            </Link>
          }
        >
          What it says
        </Heading>
        <Answer sheet={sheet} blank={blank} result={result} />
      </section>
    </div>
  );
}

const TONES = { good: 'text-verdi', bad: 'text-stamp', open: 'text-ink' } as const;

function Answer({
  sheet,
  blank,
  result,
}: {
  sheet: SheetName;
  blank: boolean;
  result: ReturnType<typeof computeDraft>;
}) {
  if (blank)
    return (
      <p className="py-3 text-[17px] text-ink2">
        Type what was read. Everything that is left empty stays unknown.
      </p>
    );
  if (!result.ok) return <Trouble>{result.trouble}</Trouble>;
  const { head, tone, lines } = sayAnswer(sheet, result.answer);
  const chart = chartOf(sheet, result.document, result.answer);
  const next = nextWords(result.answer.next, (field) => labelOf(sheet, field));
  return (
    <div aria-live="polite">
      <p
        className={`py-3 text-[22px] leading-[27px] font-[760] ${TONES[tone]}`}
        data-testid="bench-head"
        data-tone={tone}
      >
        {tone === 'good' ? '✓ ' : tone === 'bad' ? '✕ ' : ''}
        {head}
      </p>
      {next ? (
        <p
          className="border-l-[6px] border-pencil bg-pencil-t px-4 py-2 text-[17px] font-[650] text-pencil"
          data-testid="bench-next"
        >
          {next}
        </p>
      ) : null}
      {sheet === 'insulation' ? (
        <InsulationMatrix
          sheet={result.document as InsulationSheet}
          answer={result.answer as unknown as InsulationAnswer}
        />
      ) : null}
      {sheet === 'coil' ? (
        <CoilStrip sheet={result.document as CoilSheet} answer={result.answer as unknown as CoilAnswer} />
      ) : null}
      {chart ? <SheetChartFigure chart={chart} /> : null}
      <ul className="py-2 text-[17px] leading-[25px]">
        {lines.map((one) => (
          <li key={one} className="fig border-b border-rule py-0.5 break-words">
            {one}
          </li>
        ))}
      </ul>
      <HeldAgainst rows={result.held} />
      <ul className="text-[16.5px] leading-[23px] text-ink2">
        {result.answer.findings.map((one, at) => (
          <li key={at} className="py-0.5">
            {findingWords(one)}
          </li>
        ))}
      </ul>
    </div>
  );
}

const lowerFirst = (text: string) => `${text[0]!.toLowerCase()}${text.slice(1)}`;

/** What a field is called on the form; a cell of a table by its row and column. */
function labelOf(sheet: SheetName, field: string): string {
  const specs = BENCH_FORMS[sheet];
  const own = specs.find(
    (spec) => 'field' in spec && (spec.field === field || spec.field.split('.')[0] === field),
  );
  if (own) return lowerFirst(own.label);
  const [row, key] = field.split(/\.(?=[^.]+$)/);
  for (const spec of specs) {
    if (spec.kind !== 'table' && spec.kind !== 'byName') continue;
    const columns: readonly { key: string; label: string }[] = spec.columns;
    const column = columns.find((one) => one.key === key || one.key === row);
    if (column) return `${column.key === key ? row : key}, ${lowerFirst(column.label)}`;
  }
  return field === 'lift' ? 'lift one side and read again' : field;
}
