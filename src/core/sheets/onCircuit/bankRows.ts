import type { Branch } from '../../circuit/compile';
import type { CircuitModel } from '../../circuit/model';
import { workingPatterns } from '../../diagnosis/patterns';
import type { Reading, Setup, Test } from '../../circuit/schema';
import { seenWork } from '../../job/seenWork';
import type { ShopMarks } from '../../tables/marks';
import { mostDrawn } from './bearing';
import { aloneCell } from './coilSheet';
import { loadedPattern } from './loadedPattern';
import { openContactOf, type OpenContact } from './openContact';
import {
  cellOf,
  hangsOn,
  isBare,
  nameOf,
  pickBetween,
  pickOf,
  sizeOf,
  soundValue,
  testsOf,
  underCommand,
  volts,
  type SheetCell,
} from './jobSheet';

export const BANK_COLUMNS = [
  'click',
  'load',
  'coilVolts',
  'coilOhms',
  'rivalAtRest',
  'openOhms',
  'openAlone',
  'closedOhms',
  'dropVolts',
  'amps',
] as const;
export type BankColumn = (typeof BANK_COLUMNS)[number];
export interface BankRow {
  name: string;
  between: readonly [string, string];
  cells: Record<BankColumn, SheetCell | null>;
  open: OpenContact;
  /** Whether its coil gets what it pulls in with; null while that is not known. */
  fed: boolean | null;
  /** What the sound machine sends through the contact. */
  amps: number | undefined;
  /** How many times that may flow at all; see `mostDrawn`. */
  mostDrawn: number;
}

/** Rows of a bank, one for each contact that a relay or contactor makes. */
export function bankRows(model: CircuitModel, readings: readonly Reading[], marks: ShopMarks): BankRow[] {
  const patterns = workingPatterns(model);
  return model.compiled.parts.flatMap((own) => {
    const { part, branches } = own;
    if (part.kind !== 'relay') return [];
    const coil = branches[0]!;
    const clicks = pickOf(model, 'click', part.ref, (_test, expected) => expected === true);
    const commanded = clicks?.setup ?? loadedPattern(model, patterns, coil.index)?.setup;
    const click = cellOf(model, clicks, readings);
    const coilVolts = commanded ? cellOf(model, coilVoltsTest(model, coil, commanded), readings) : null;
    const coilOhms = aloneCell(model, own, readings);
    return branches
      .filter(({ role }) => role === 'made')
      .map((contact): BankRow => {
        const place = [nameOf(model, contact.a), nameOf(model, contact.b)] as const;
        const held = (test: Test) => test.setup.energised?.includes(part.ref) ?? false;
        const closed = cellOf(
          model,
          pickBetween(model, 'ohms', place, (test) => held(test)),
          readings,
        );
        const open = openContactOf(
          model,
          own,
          contact,
          cellOf(
            model,
            pickBetween(model, 'ohms', place, (test, expected) => !held(test) && expected === 'OL'),
            readings,
          ),
          readings,
        );
        const loaded = loadedPattern(model, patterns, contact.index);
        const load = loaded && loadTest(model, contact, loaded.setup);
        const drop = loaded
          ? cellOf(model, dropTest(model, place, loaded.setup, contact.volts), readings)
          : null;
        return {
          name: `${part.ref} ${place[0]}–${place[1]}`,
          between: place,
          cells: {
            click,
            load: cellOf(model, load, readings),
            coilVolts,
            coilOhms,
            openOhms: open.quick,
            openAlone: open.alone,
            closedOhms: closed,
            dropVolts: drop,
            amps: loaded ? cellOf(model, ampsTest(model, contact, loaded), readings) : null,
            rivalAtRest: null,
          },
          open,
          fed: isFed(coilVolts, coil, marks),
          amps: loaded?.amps,
          mostDrawn: load?.kind === 'function' ? mostDrawn(model, load.part, load.setup) : Infinity,
        };
      });
  });
}

/** Whether what stands at a coil is what it must pull in with; null while nothing was read. */
function isFed(cell: SheetCell | null, { reactance }: Branch, { coilVolts }: ShopMarks): boolean | null {
  const read = volts(cell);
  if (cell === null || read === undefined) return null;
  return read >= coilVolts[reactance > 0 ? 'contactorAC' : 'contactorDC'].pullIn * sizeOf(cell.expected);
}

/** A drop across a closed contact is no more than this share of its circuit, on the sound machine. */
const CLOSED_SHARE = 0.1;

/** Currents that differ by less are one, as a share: what feeds a coil beside its contact goes through the same fuse. */
const SAME_CURRENT = 0.1;

/** Volts across a coil under a command that feeds it. */
function coilVoltsTest(model: CircuitModel, { a, b }: Branch, setup: Setup): Test | null {
  const commanded = underCommand(setup);
  return pickBetween(
    model,
    'volts',
    [nameOf(model, a), nameOf(model, b)],
    (test, expected) => commanded(test) && isBare(test) && sizeOf(expected) > 1,
  );
}

/** A look at the load that a contact carries, in the command that sends most through it. */
function loadTest(model: CircuitModel, { index }: Branch, setup: Setup): Test | null {
  const commanded = underCommand(setup);
  const found = seenWork(model)
    .map(({ ref, setup: seen }): Test => ({ kind: 'function', part: ref, setup: seen }))
    .find((test) => commanded(test) && test.setup.afterSeconds === undefined && hangsOn(model, test, index));
  return found ?? null;
}

/** A clamp on what flows through a contact, and through nothing else besides. */
function ampsTest(
  model: CircuitModel,
  { index }: Branch,
  { setup, amps }: { setup: Setup; amps: number },
): Test | null {
  const commanded = underCommand(setup);
  const found = testsOf(model)
    .filter(({ bound: { test } }) => test.kind === 'amps' && commanded(test) && isBare(test))
    .filter(
      ({ bound: { test } }) =>
        Math.abs(sizeOf(soundValue(model, test)) / amps - 1) < SAME_CURRENT && hangsOn(model, test, index),
    )
    .sort((one, two) => one.minutes - two.minutes)[0];
  return found?.bound.test ?? null;
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
