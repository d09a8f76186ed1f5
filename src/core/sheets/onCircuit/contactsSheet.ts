import type { CircuitModel } from '../../circuit/model';
import { workingPatterns } from '../../diagnosis/patterns';
import type { Reading, Setup, Test } from '../../circuit/schema';
import type { ShopMarks } from '../../tables/marks';
import { heldAgainst } from '../heldAgainst';
import { judgeContacts, type ContactsSheet } from '../contacts/contacts';
import { loadedPattern } from './loadedPattern';
import {
  cellOf,
  isAlone,
  figure,
  HEAD,
  nameOf,
  pickBetween,
  pickOf,
  underCommand,
  volts,
  type JobSheet,
  type SheetRow,
} from './jobSheet';

/** A drop across a closed contact is no more than this share of its circuit, on the sound machine. */
const CLOSED_SHARE = 0.1;

/** Relays and contactors beside each other: click, coil, the contact both ways, and its drop under load. */
export function contactsSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
): JobSheet | null {
  const { compiled } = model;
  const patterns = workingPatterns(model);
  const found = compiled.parts.flatMap((own) => {
    const { part, branches } = own;
    if (part.kind !== 'relay') return [];
    const coil = branches[0]!;
    const click = cellOf(
      model,
      pickOf(model, 'click', part.ref, (_test, expected) => expected === true),
      readings,
    );
    const coilOhms = cellOf(
      model,
      pickBetween(model, 'ohms', [nameOf(model, coil.a), nameOf(model, coil.b)], (_test, expected) =>
        isAlone(expected, coil.ohms),
      ),
      readings,
    );
    return branches
      .filter(({ role }) => role === 'made')
      .map((contact) => {
        const place = [nameOf(model, contact.a), nameOf(model, contact.b)] as const;
        const held = (test: Test) => test.setup.energised?.includes(part.ref) ?? false;
        const closed = cellOf(
          model,
          pickBetween(model, 'ohms', place, (test) => held(test)),
          readings,
        );
        const open = cellOf(
          model,
          pickBetween(model, 'ohms', place, (test, expected) => !held(test) && expected === 'OL'),
          readings,
        );
        const loaded = loadedPattern(model, patterns, contact.index);
        const drop = loaded
          ? cellOf(model, dropTest(model, place, loaded.setup, contact.volts), readings)
          : null;
        return {
          name: `${part.ref} ${place[0]}–${place[1]}`,
          between: place,
          click,
          coilOhms,
          closed,
          open,
          drop,
          amps: loaded?.amps,
        };
      });
  });
  if (found.length === 0) return null;
  const sheet: ContactsSheet = {
    ...HEAD,
    sheet: 'contacts',
    contactors: found.map(({ name, click, coilOhms, closed, open, drop, amps }) => ({
      name,
      clicks: typeof click?.value === 'boolean' ? click.value : undefined,
      coilOhms: figure(coilOhms),
      closedOhms: figure(closed),
      openOhms: figure(open),
      dropVolts: volts(drop),
      drops: undefined,
      // What the sound machine carries through it: the drop is judged at its working current.
      atAmps: volts(drop) === undefined ? undefined : amps,
      ratedAmps: amps,
    })),
    leadOhms: 0,
    school: undefined,
    lineVolts: Math.max(...compiled.branches.map((branch) => branch.volts), 0) || undefined,
    directions: undefined,
    poles: undefined,
    needs: undefined,
    spares: undefined,
    onSeconds: undefined,
    cycleSeconds: undefined,
    dutyShare: undefined,
  };
  const answer = judgeContacts(sheet, marks);
  const rows = found.map(({ name, between, click, coilOhms, closed, open, drop }) => ({
    name,
    between,
    cells: [click, coilOhms, open, closed, drop],
    verdict: answer.verdicts[name] ?? null,
  }));
  return {
    name: 'contacts',
    columns: ['click', 'coilOhms', 'openOhms', 'closedOhms', 'dropVolts'],
    rows,
    next: nextContact(rows),
    answers: [answer],
    held: heldAgainst(sheet, answer, marks),
  };
}

/** The free look first, then the drop under load; ohms where no drop can be read. */
function nextContact(rows: readonly SheetRow[]): JobSheet['next'] {
  for (const column of [0, 4, 1, 3, 2]) {
    const row = rows.findIndex(
      ({ cells, verdict }) =>
        cells[column] && cells[column].value === null && (verdict === null || verdict === 'needsLoad'),
    );
    if (row >= 0) return [row, column];
  }
  return null;
}

function dropTest(
  model: CircuitModel,
  place: readonly [string, string],
  setup: Setup,
  circuitVolts: number,
): Test | null {
  const commanded = underCommand(setup);
  return pickBetween(
    model,
    'volts',
    place,
    (test, expected) =>
      commanded(test) &&
      typeof expected === 'number' &&
      Math.abs(expected) <= CLOSED_SHARE * Math.max(circuitVolts, 1),
  );
}
