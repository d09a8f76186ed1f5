'use client';

import {
  createColumnHelper,
  createSortedRowModel,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type Row,
} from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useMemo, useState, useTransition } from 'react';
import { parseFigure } from '@/core/units/parseFigure';
import { Form } from '@/ui/Form';
import { MainKey, PlainKey, TextField, Trouble } from '@/ui/sheet';
import { factorWords } from '@/words/en/record';
import { settleOdds } from './actions';
import { sent } from '../sent';
import type { RecordRow } from './server';

const features = tableFeatures({ rowSortingFeature, sortedRowModel: createSortedRowModel() });
const helper = createColumnHelper<typeof features, RecordRow>();
const byValue = (a: Row<typeof features, RecordRow>, b: Row<typeof features, RecordRow>, column: string) =>
  a.getValue<number>(column) - b.getValue<number>(column);

/** What broke, class by class, against the rule of thumb; the lead may put an own factor in place of a learnt one. */
export function RecordTable({
  rows,
  learn,
  by,
}: {
  rows: readonly RecordRow[];
  learn: boolean;
  by: string | null;
}) {
  const [chosen, setChosen] = useState<string | null>(null);
  const columns = useMemo(
    () =>
      helper.columns([
        helper.accessor('words', { header: 'What it was', enableSorting: false }),
        helper.accessor('found', { header: 'Found', sortFn: byValue, sortDescFirst: true }),
        helper.accessor('expected', { header: 'By rule of thumb', sortFn: byValue, sortDescFirst: true }),
        helper.accessor('factor', { header: 'Weighed', sortFn: byValue, sortDescFirst: true }),
      ]),
    [],
  );
  const [all, setAll] = useState(false);
  const seen = useMemo(() => rows.filter((row) => all || row.found > 0 || row.own), [rows, all]);
  const data = useMemo(() => [...seen], [seen]);
  const table = useTable({ features, data, columns });
  return (
    <>
      <OwnOddsForm
        key={chosen ?? ''}
        rows={rows}
        learn={learn}
        by={by}
        chosen={rows.find(({ of }) => of === chosen) ?? null}
      />
      <table className="w-full border-collapse text-[16px]">
        <thead>
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id} className="border-b-2 border-ink text-left">
              {group.headers.map((header) => {
                const sorted = header.column.getIsSorted();
                return (
                  <th
                    key={header.id}
                    scope="col"
                    aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : undefined}
                    className="py-1 pr-3 font-[700]"
                  >
                    {header.column.getCanSort() ? (
                      <button
                        type="button"
                        className="inline-flex min-h-11 items-center gap-1 text-left"
                        onClick={header.column.getToggleSortingHandler()}
                      >
                        <table.FlexRender header={header} />
                        {sorted === 'asc' ? <ArrowUp size={16} aria-hidden /> : null}
                        {sorted === 'desc' ? <ArrowDown size={16} aria-hidden /> : null}
                      </button>
                    ) : (
                      <table.FlexRender header={header} />
                    )}
                  </th>
                );
              })}
              <th scope="col" className="w-16">
                <span className="sr-only">Own factor</span>
              </th>
            </tr>
          ))}
        </thead>
        <tbody>
          {table.getRowModel().rows.map(({ original: row }) => (
            <tr key={row.of} className="border-b-[1.5px] border-rule">
              <td className="py-1 pr-3 break-words">{row.words}</td>
              <td className="fig-bold pr-3">{row.found}</td>
              <td className="fig pr-3 text-ink2">{row.expected.toFixed(1)}</td>
              <td className="fig pr-3">
                {factorWords(row.factor)}
                {row.own ? <span className="text-[15px] text-copper-ink"> own</span> : null}
              </td>
              <td className="text-right">
                <PlainKey
                  className="px-3! text-[15px]!"
                  aria-label={`Own factor for ${row.words}`}
                  aria-pressed={chosen === row.of}
                  onClick={() => setChosen(chosen === row.of ? null : row.of)}
                >
                  Own
                </PlainKey>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > seen.length || all ? (
        <PlainKey className="mt-3 text-[16px]!" onClick={() => setAll(!all)}>
          {all ? 'Only what was found' : 'Also what was never found'}
        </PlainKey>
      ) : null}
    </>
  );
}

/** Whether the shed's odds count, and one class's own factor. */
function OwnOddsForm({
  rows,
  learn,
  by,
  chosen,
}: {
  rows: readonly RecordRow[];
  learn: boolean;
  by: string | null;
  chosen: RecordRow | null;
}) {
  const [factor, setFactor] = useState(chosen?.own ? String(chosen.factor) : '');
  const [uses, setUses] = useState(learn);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [kept, setKept] = useState(false);
  const [busy, start] = useTransition();
  const settle = () => {
    const kept = rows.filter((row) => row.own && row.of !== chosen?.of);
    const own = Object.fromEntries(kept.map((row) => [row.of, row.factor]));
    if (chosen && factor.trim() !== '') {
      const typed = parseFigure(factor);
      if (typed.is === 'figure') own[chosen.of] = typed.value;
      else
        return setTrouble(
          `“${factor}” is no factor; type one such as 2.5, or nothing to go by what was learnt.`,
        );
    }
    start(async () => {
      const answer = await sent(settleOdds({ learn: uses, own }));
      setTrouble(answer.trouble);
      setKept(answer.trouble === null);
    });
  };
  return (
    <Form
      deed="settle"
      className="border-b-[1.5px] border-rule pb-3"
      onSubmit={(event) => {
        event.preventDefault();
        settle();
      }}
    >
      <label className="flex min-h-11 items-center gap-3 text-[16.5px]">
        <input
          type="checkbox"
          className="size-5"
          checked={uses}
          onChange={(event) => setUses(event.target.checked)}
        />
        Jobs are weighed by what broke here, from their opening on
      </label>
      <div className="flex flex-wrap items-end gap-3">
        {chosen ? (
          <TextField
            label={`Own factor: ${chosen.words}`}
            className="w-[280px]"
            figure
            inputMode="decimal"
            placeholder={factorWords(chosen.factor)}
            value={factor}
            onType={setFactor}
          />
        ) : null}
        <MainKey type="submit" disabled={busy}>
          Keep it
        </MainKey>
        <span role="status" className="text-verdi">
          {kept ? '✓ Kept.' : ''}
        </span>
      </div>
      {by ? <p className="pt-1 text-[15.5px] text-ink2">Settled last by {by}.</p> : null}
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </Form>
  );
}
