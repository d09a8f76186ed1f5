'use client';

import { useState } from 'react';
import { isOpen, REFERENCE_TABLES, type ReferenceTable } from '@/core/tables/tables';
import { Field, FIELD, Heading, MainKey, Trouble } from '@/ui/sheet';
import { equipmentKey, ruleKey } from '@/core/tables/ruleKey';
import type { ShopRules } from './rules';
import { parseFigure } from '@/core/units/parseFigure';
import { useMay } from '@/ui/who';
import { settleRules } from './actions';
import { sent } from '../sent';

/** Figures to lean on where nothing better is known; what is practice and no standard can be the shop's own. */
export function TablesScreen({
  rules,
  by,
  equipment,
}: {
  rules: ShopRules;
  by: string | null;
  equipment: readonly string[];
}) {
  const [own, setOwn] = useState<string | null>(null);
  const [typed, setTyped] = useState<Record<string, string>>({});
  const maySettle = useMay('settle');
  const [said, setSaid] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const keep = async () => {
    const next: Record<string, number> = { ...rules };
    for (const [key, text] of Object.entries(typed)) {
      const figure = parseFigure(text);
      if (figure.is === 'empty') Reflect.deleteProperty(next, key);
      else if (figure.is === 'figure' && figure.value >= 0) next[key] = figure.value;
      else {
        setTrouble(`“${text}” is no figure; write a number such as 0.2.`);
        return;
      }
    }
    const answer = await sent(settleRules(next));
    setTrouble(answer.trouble);
    setSaid(answer.trouble ? null : 'Kept.');
    if (!answer.trouble) setTyped({});
  };
  return (
    <div className="px-6 pb-10 max-tablet:px-3">
      <p className="max-w-[820px] py-3 text-[16.5px]">
        A maker’s value for the very part goes before all of these, then an identical neighbour, then this
        machine’s own past. Figures in a field are shop rules: practice, and no law. The shop writes its own
        over them.
      </p>
      {equipment.length > 0 ? (
        <Field label="These figures are for" className="w-[300px]">
          <select
            className={FIELD}
            value={own ?? ''}
            onChange={(event) => setOwn(event.target.value === '' ? null : event.target.value)}
          >
            <option value="">all equipment</option>
            {equipment.map((one) => (
              <option key={one} value={one}>
                {one} alone
              </option>
            ))}
          </select>
        </Field>
      ) : null}
      {REFERENCE_TABLES.map((table) => (
        <Table key={table.id} table={table} rules={rules} equipment={own} typed={typed} onTyped={setTyped} />
      ))}
      <div className="mt-6 flex flex-wrap items-end gap-4">
        {maySettle ? (
          <MainKey disabled={Object.keys(typed).length === 0} onClick={() => void keep()}>
            Keep the shop rules
          </MainKey>
        ) : (
          <span className="pb-2 text-[16px] text-ink2">A lead settles the shop’s own figures.</span>
        )}
        {by ? <span className="pb-2 text-[15.5px] text-ink2">settled by {by}</span> : null}
      </div>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
      {said ? (
        <p role="status" className="py-2 text-verdi">
          {said}
        </p>
      ) : null}
    </div>
  );
}

function Table({
  table,
  rules,
  equipment,
  typed,
  onTyped,
}: {
  table: ReferenceTable;
  rules: ShopRules;
  /** Class of equipment whose own figures are typed; null for all. */
  equipment: string | null;
  typed: Readonly<Record<string, string>>;
  onTyped: (typed: Record<string, string>) => void;
}) {
  const { id, title, source, note, columns, rows } = table;
  return (
    <section aria-labelledby={id} className="mt-5">
      <Heading id={id} aside={source}>
        {title}
      </Heading>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label={title}>
        <table className="min-w-[420px] border-collapse text-[16px]">
          <thead>
            <tr>
              {columns.map(({ key, label, unit }) => (
                <th
                  key={key}
                  scope="col"
                  className="border-b-[1.5px] border-edge px-3 py-1.5 text-left font-[700] first:pl-0"
                >
                  {label}
                  {unit ? <span className="font-[550] text-ink2">, {unit}</span> : null}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, at) => (
              <tr key={JSON.stringify(row)}>
                {columns.map(({ key, label }) => {
                  const shop = ruleKey(table, at, key);
                  const own = equipment === null ? shop : equipmentKey(shop, equipment);
                  // Of a class that has no figure of its own the shop's holds, and shows behind the empty field.
                  const holds = rules[shop] ?? row[key];
                  const value = equipment === null ? holds : rules[own];
                  return (
                    <td key={key} className="fig border-b border-rule px-3 py-1 text-[15.5px] first:pl-0">
                      {isOpen(table, at, key) ? (
                        <input
                          className="fig min-h-9 w-24 border-[1.5px] border-edge bg-sheet px-2"
                          aria-label={`${title}, ${String(row[columns[0]!.key])}, ${label}`}
                          inputMode="decimal"
                          placeholder={equipment === null || holds === null ? undefined : String(holds)}
                          value={typed[own] ?? String(value ?? '')}
                          onChange={(event) => onTyped({ ...typed, [own]: event.target.value })}
                        />
                      ) : (
                        (row[key] ?? 'none')
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="pt-1.5 text-[15.5px] text-ink2">{note}</p>
    </section>
  );
}
