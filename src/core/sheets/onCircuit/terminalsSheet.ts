import type { Branch } from '../../circuit/compile';
import type { CircuitModel } from '../../circuit/model';
import { bindTest, predict } from '../../diagnosis/predict';
import type { Reading } from '../../circuit/schema';
import { kindOf } from '../../kinds/part';
import { openContactOf, type OpenContact } from './openContact';
import { contactVerdict } from '../terminals/terminals';
import {
  cellOf,
  figure,
  firstOpen,
  hangsOn,
  nameOf,
  ohmsSize,
  pickBetween,
  withoutColumns,
  type JobSheet,
  type SheetCell,
  type SheetRow,
} from './jobSheet';

/** A closed contact of the sound circuit shows no more than this, ohms. */
const CLOSED_OHMS = 2;
/** Branches of a part that are contacts. */
const CONTACTS = ['body', 'made', 'resting'] as const;
/** And an open one at least so much through whatever lies across it. */
const OPEN_OHMS = 10;
/** From this share of what lies across it a contact is open. */
const ACROSS_SHARE = 0.7;
/** From this share of what leads round about a closed contact on its ohms may be that way's. */
const ROUND_SHARE = 0.5;
/** What says most of a contact, of its two readings. */
const WORST = ['welded', 'open', 'weak', 'elsewhere'] as const;

/** The truth table: every contact of relays and switches in the state in which it should be open, and in the one in which it should be closed. */
export function terminalsSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
): JobSheet<'terminals'> | null {
  const contacts = model.compiled.parts.flatMap((own) => {
    const { part, branches } = own;
    if (part.kind !== 'relay' && !kindOf(part).traits.contact) return [];
    return branches
      .filter(({ role }) => (CONTACTS as readonly string[]).includes(role))
      .filter(({ role }) => part.kind !== 'relay' || role !== 'body')
      .map((contact) => ({
        own,
        contact,
        between: [nameOf(model, contact.a), nameOf(model, contact.b)] as const,
      }));
  });
  const wantsAlone = new Set<string>();
  const rows = contacts.flatMap(({ own, contact, between }): SheetRow<'terminals'>[] => {
    const name = `${own.part.ref} ${between.join('–')}`;
    const quick = cellOf(
      model,
      pickBetween(model, 'ohms', between, (_test, one) => ohmsSize(one) > OPEN_OHMS),
      readings,
    );
    const closed = cellOf(
      model,
      // Few ohms over an open one, round about over two loads, say nothing of it closed.
      pickBetween(
        model,
        'ohms',
        between,
        (test, one) => ohmsSize(one) <= CLOSED_OHMS && hangsOn(model, test, contact.index),
      ),
      readings,
    );
    if (quick === null && closed === null) return [];
    const open = openContactOf(model, own, contact, quick, readings);
    if (open.wantsAlone) wantsAlone.add(name);
    const said = [
      openVerdict(open),
      closed && figure(closed) !== undefined ? closedVerdict(model, contact, closed) : null,
    ];
    const worst = WORST.find((verdict) => said.includes(verdict));
    const all = said.every((verdict, at) => verdict === 'good' || [quick, closed][at] === null);
    return [
      {
        name,
        between,
        cells: [quick, open.alone, closed],
        verdict:
          worst === 'open' && own.part.kind === 'pressureSwitch' ? 'doubt' : (worst ?? (all ? 'good' : null)),
      },
    ];
  });
  if (rows.length === 0) return null;
  const whole: JobSheet<'terminals'> = {
    name: 'terminals',
    columns: ['shouldBeOpen', 'openAlone', 'shouldBeClosed'],
    rows,
    // A contact that is found bad needs no second reading, and its end is bared only where nothing else can say.
    next: firstOpen(
      rows.map((row) => {
        const asked = row.verdict === null || wantsAlone.has(row.name);
        const alone = wantsAlone.has(row.name);
        return { ...row, cells: row.cells.map((cell, at) => (asked && (at !== 1 || alone) ? cell : null)) };
      }),
    ),
    answers: [],
  };
  return withoutColumns(whole, ['openAlone']);
}

type Said = ReturnType<typeof contactVerdict> | 'elsewhere' | null;

/** One that should be open, by what was read of itself; what lies across it shows instead of it. */
function openVerdict({ quick, alone, own }: OpenContact): Said {
  if (quick === null || (figure(quick) === undefined && figure(alone) === undefined)) return null;
  // Some ohms come as well round about, through another contact that is closed and its load.
  if (own === undefined) return 'elsewhere';
  const across = ohmsSize((figure(alone) === undefined ? quick : alone!).expected);
  const verdict = contactVerdict(ohmsSize(own) >= ACROSS_SHARE * across ? 'OL' : own, false);
  // Its own or what lies across it: its end was not bare.
  return verdict === 'weak' && figure(alone) === undefined ? 'elsewhere' : verdict;
}

/** One that should be closed. Where nearly as few ohms lead round about it they say nothing of it. */
function closedVerdict(model: CircuitModel, { index }: Branch, cell: SheetCell): Said {
  const shown = figure(cell)!;
  const verdict = contactVerdict(shown, true);
  if (verdict !== 'good') return verdict;
  const around = predict(bindTest(model, cell.test), [{ type: 'ohms', branch: index, ohms: Infinity }]);
  const leads = around.type === 'number' ? around.mean : Infinity;
  return ohmsSize(shown) >= ROUND_SHARE * leads ? 'elsewhere' : 'good';
}
