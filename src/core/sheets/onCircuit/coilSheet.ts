import type { CompiledPart } from '../../circuit/compile';
import type { CircuitModel } from '../../circuit/model';
import type { Reading } from '../../circuit/schema';
import { clampedAt } from '../../diagnosis/partsAcross';
import type { ShopMarks } from '../../tables/marks';
import { areTwins } from '../../diagnosis/twins';
import { heldAgainst, uniqueRows, type HeldRow } from '../heldAgainst';
import { judgeCoil, type CoilSheet } from '../coil/coil';
import {
  cellOf,
  isAlone,
  figure,
  firstOpen,
  HEAD,
  nameOf,
  pickBetween,
  pickOf,
  volts,
  type JobSheet,
  type SheetCell,
  type SheetRow,
} from './jobSheet';

/** Every winding by its ohms, its twins beside it. */
export function coilSheetOf(model: CircuitModel, readings: readonly Reading[], marks: ShopMarks): JobSheet {
  const { compiled } = model;
  const parts = compiled.parts.filter(({ part }) => part.kind === 'coil' || part.kind === 'relay');
  const cells = parts.map((coil) => {
    const body = coil.branches[0]!;
    const place = [nameOf(model, body.a), nameOf(model, body.b)] as const;
    const ohms = cellOf(
      model,
      pickBetween(model, 'ohms', place, (_test, expected) => isAlone(expected, body.ohms)),
      readings,
    );
    const amps = cellOf(
      model,
      pickOf(
        model,
        'amps',
        clampedAt(model, coil) ?? coil.part.ref,
        (_test, expected) => Number(expected) > 0,
      ),
      readings,
    );
    return { ohms, amps };
  });
  const rows = parts.map((own, at): SheetRow & { answer: ReturnType<typeof judgeCoil>; held: HeldRow[] } => {
    const { ohms, amps } = cells[at]!;
    const document = coilDocument(own, ohms, amps, twinsOf(parts, cells, at));
    const answer = judgeCoil(document, marks);
    return {
      name: own.part.ref,
      cells: [ohms, amps],
      verdict: answer.verdict === 'unknown' ? null : answer.verdict,
      answer,
      held: heldAgainst(document, answer, marks),
    };
  });
  return {
    name: 'coil',
    columns: ['ohms', 'amps'],
    rows: rows.map(({ answer: _answer, held: _held, ...row }) => row),
    // Ohms decide; a current is read where the ohms leave something open.
    next: firstOpen(rows.map((row) => ({ ...row, cells: [row.cells[0]!] }))),
    answers: rows.map(({ answer }) => answer),
    held: uniqueRows(rows.flatMap(({ held }) => held)),
  };
}

function twinsOf(
  parts: readonly CompiledPart[],
  cells: readonly { ohms: SheetCell | null }[],
  at: number,
): number[] {
  return parts.flatMap((other, k) => {
    const value = figure(cells[k]!.ohms);
    return k !== at && areTwins(parts[at]!, other) && typeof value === 'number' && value > 0 ? [value] : [];
  });
}

function coilDocument(
  { part, branches }: CompiledPart,
  ohms: SheetCell | null,
  amps: SheetCell | null,
  twins: number[],
): CoilSheet {
  const read = figure(ohms);
  const figures = part as {
    ohms?: number;
    tolerance?: number;
    henries?: number;
    va?: number;
    sealedAmps?: number;
    inrushAmps?: number;
  };
  const body = branches[0]!;
  return {
    ...HEAD,
    sheet: 'coil',
    ohms: read === undefined ? [] : [read],
    // The job's readings have their leads off already.
    leadOhms: 0,
    temperatureC: undefined,
    maker: figures.ohms === undefined ? undefined : { ohms: figures.ohms, tolerance: figures.tolerance },
    twins,
    own: undefined,
    fleet: undefined,
    supplyVolts: body.volts > 0 ? body.volts : undefined,
    hz: body.reactance > 0 || !body.impedanceKnown ? 50 : 0,
    sealedAmps: figures.sealedAmps,
    inrushAmps: figures.inrushAmps,
    va: figures.va,
    henries: figures.henries,
    measuredAmps: volts(amps),
    driverLimitAmps: undefined,
    fuseAmps: undefined,
    hotOhms: undefined,
    insulationClass: undefined,
    ratedVolts: undefined,
    device: undefined,
    pullInVolts: undefined,
    dropOutVolts: undefined,
    pulseShare: undefined,
    flybackVolts: undefined,
    switchVolts: undefined,
    meterVolts: undefined,
    pinVolts: undefined,
    onSeconds: undefined,
    cycleSeconds: undefined,
    dutyShare: undefined,
  };
}
