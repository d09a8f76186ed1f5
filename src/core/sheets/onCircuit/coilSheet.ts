import { isAssumed } from '../../circuit/assumed';
import type { CompiledPart } from '../../circuit/compile';
import type { CircuitModel } from '../../circuit/model';
import type { Reading } from '../../circuit/schema';
import { ohmsAt20 } from '../../circuit/copper';
import { windingType, type PastWinding } from '../../job/provedMeasures';
import { clampedAt } from '../../diagnosis/partsAcross';
import type { ShopMarks } from '../../tables/marks';
import { areTwins } from '../../diagnosis/twins';
import { heldAgainst, uniqueRows, type HeldRow } from '../heldAgainst';
import { judgeCoil, type CoilAnswer, type CoilSheet } from '../coil/coil';
import {
  cellOf,
  isOwn,
  figure,
  firstOpen,
  HEAD,
  nameOf,
  pickBetween,
  pickOf,
  volts,
  type CoilOfJob,
  type JobPast,
  type JobSheet,
  type SheetCell,
  type SheetRow,
} from './jobSheet';

interface CoilRow extends SheetRow {
  coil: CoilOfJob;
  answer: CoilAnswer;
  held: HeldRow[];
}

/** Every winding by its ohms: the drawing's, its twins, its own past and the shed's beside it. */
export function coilSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
  { windings }: JobPast,
): JobSheet {
  const { compiled } = model;
  const parts = compiled.parts.filter(({ part }) => part.kind === 'coil' || part.kind === 'relay');
  const cells = parts.map((coil) => {
    const ohms = aloneCell(model, coil, readings);
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
    const read = typeof ohms?.reading === 'number' ? readings[ohms.reading] : undefined;
    return { ohms, amps, celsius: read?.kind === 'ohms' ? read.celsius : undefined };
  });
  const rows = parts.map((own, at): CoilRow => {
    const { ohms, amps, celsius } = cells[at]!;
    const past = pastOf(own, windings);
    const document = coilDocument(own, ohms, amps, celsius, {
      twins: twinsOf(parts, cells, at),
      own: judgedBy(past.own),
      fleet: judgedBy(past.fleet),
    });
    const answer = judgeCoil(document, marks);
    return {
      name: own.part.ref,
      cells: [ohms, amps],
      verdict: answer.verdict === 'unknown' ? null : answer.verdict,
      coil: { document, past },
      answer,
      held: heldAgainst(document, answer, marks),
    };
  });
  return {
    name: 'coil',
    columns: ['ohms', 'amps'],
    rows: rows.map(({ coil: _coil, answer: _answer, held: _held, ...row }) => row),
    // Ohms decide; a current is read where the ohms leave something open.
    next: firstOpen(rows.map((row) => ({ ...row, cells: [row.cells[0]!] }))),
    answers: rows.map(({ answer }) => answer),
    coils: rows.map(({ coil }) => coil),
    held: uniqueRows(rows.flatMap(({ held }) => held)),
  };
}

/** The ohms of a winding where the sound circuit shows it alone. */
export function aloneCell(
  model: CircuitModel,
  { branches }: CompiledPart,
  readings: readonly Reading[],
): SheetCell | null {
  const body = branches[0]!;
  const place = [nameOf(model, body.a), nameOf(model, body.b)] as const;
  return cellOf(
    model,
    pickBetween(model, 'ohms', place, (test, expected) => isOwn(model, test, expected, body)),
    readings,
  );
}

function twinsOf(
  parts: readonly CompiledPart[],
  cells: readonly { ohms: SheetCell | null; celsius: number | undefined }[],
  at: number,
): number[] {
  const here = cells[at]!.celsius;
  return parts.flatMap((other, k) => {
    const { ohms, celsius = here } = cells[k]!;
    // What wanders is held against nothing.
    const value = ohms?.wandered ? undefined : figure(ohms);
    if (k === at || !areTwins(parts[at]!, other) || typeof value !== 'number' || value <= 0) return [];
    // A neighbour is as warm as this one where nobody said; held beside each other their temperature drops out.
    return [celsius === undefined ? value : ohmsAt20(value, celsius)];
  });
}

/** What windings of a part's type read in jobs before, split into this very one's and all others of the shed. */
export function pastOf(
  own: CompiledPart,
  windings: readonly PastWinding[],
): Record<'own' | 'fleet', readonly PastWinding[]> {
  const type = windingType(own);
  const alike = windings.filter((one) => one.type === type);
  const isThis = (one: PastWinding) => one.own && one.part === own.part.ref;
  return { own: alike.filter(isThis), fleet: alike.filter((one) => !isThis(one)) };
}

/** Those that may be judged by: one whose temperature nobody took stands in the picture only. */
function judgedBy(past: readonly PastWinding[]): number[] {
  return past.filter(({ atReference }) => atReference).map(({ ohms }) => ohms);
}

function shownAs(value: Reading['value']): number | 'OL' {
  return typeof value === 'number' ? Math.abs(value) : 'OL';
}

function coilDocument(
  { part, branches }: CompiledPart,
  ohms: SheetCell | null,
  amps: SheetCell | null,
  celsius: number | undefined,
  { twins, own, fleet }: { twins: number[]; own: number[]; fleet: number[] },
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
    ohms: ohms?.wandered?.map(shownAs) ?? (read === undefined ? [] : [read]),
    // The job's readings have their leads off already.
    leadOhms: 0,
    temperatureC: celsius,
    maker:
      figures.ohms === undefined || isAssumed(part, 'ohms')
        ? undefined
        : { ohms: figures.ohms, tolerance: figures.tolerance },
    twins,
    own,
    fleet,
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
