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
import { bareEndOf, type BareEnd } from './bareEnd';
import {
  cellOf,
  isOwn,
  figure,
  firstOpen,
  HEAD,
  nameOf,
  pickBetween,
  pickOf,
  sizeOf,
  volts,
  withoutColumns,
  type CoilOfJob,
  type JobPast,
  type JobSheet,
  type SheetCell,
  type SheetRow,
} from './jobSheet';
import type { SheetVerdicts } from './verdicts';

/** Of what it should draw: with less it is not fed, whatever its ohms, and with more something besides its ohms draws. */
const FED_SHARE = 0.7;
const MORE_SHARE = 1.5;

interface CoilRow extends SheetRow<'coil'> {
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
): JobSheet<'coil'> {
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
    const bare = bareEndOf(model, coil, coil.branches[0]!, ohms, readings);
    // By itself it tells more than as it stands.
    const judged = figure(bare.cell) === undefined ? ohms : bare.cell;
    const read = typeof judged?.reading === 'number' ? readings[judged.reading] : undefined;
    return { ohms, amps, bare, judged, celsius: read?.kind === 'ohms' ? read.celsius : undefined };
  });
  const rows = parts.map((own, at): CoilRow => {
    const { ohms, amps, bare, judged, celsius } = cells[at]!;
    const past = pastOf(own, windings);
    const against = {
      twins: twinsOf(parts, cells, at),
      own: judgedBy(past.own),
      fleet: judgedBy(past.fleet),
    };
    const document = coilDocument(own, judged, amps, celsius, against);
    const answer = judgeCoil(document, marks);
    const asItStands =
      judged === ohms ? answer : judgeCoil(coilDocument(own, ohms, amps, celsius, against), marks);
    return {
      name: own.part.ref,
      cells: [ohms, amps, bare.cell],
      verdict: verdictOf(own, answer.verdict, asItStands.verdict, bare, amps),
      coil: { document, past },
      answer,
      held: heldAgainst(document, answer, marks),
    };
  });
  const whole: JobSheet<'coil'> = {
    name: 'coil',
    columns: ['ohms', 'amps', 'ohmsAlone'],
    rows: rows.map(({ coil: _coil, answer: _answer, held: _held, ...row }) => row),
    // Ohms decide, with an end of it bare where something across it may have been read.
    next: firstOpen(
      rows.map(({ cells: [ohms, , alone], ...row }) => ({
        ...row,
        cells: [ohms!, null, row.verdict === 'lowHere' ? alone! : null],
      })),
    ),
    answers: rows.map(({ answer }) => answer),
    coils: rows.map(({ coil }) => coil),
    held: uniqueRows(rows.flatMap(({ held }) => held)),
  };
  return withoutColumns(whole, ['ohmsAlone']);
}

/** What is said of a winding: too few ohms as it stands may be something else's, and right ones feed nothing. */
function verdictOf(
  { branches }: CompiledPart,
  verdict: CoilAnswer['verdict'],
  asItStands: CoilAnswer['verdict'],
  { isOwn: isBare }: BareEnd,
  amps: SheetCell | null,
): SheetVerdicts['coil'] | null {
  if (verdict === 'unknown') return null;
  if (verdict === 'low' && !isBare) return 'lowHere';
  if (verdict !== 'good') return verdict;
  if (asItStands === 'low') return 'across';
  const drawn = volts(amps);
  if (!amps || drawn === undefined) return 'good';
  const share = drawn / sizeOf(amps.expected);
  if (share < FED_SHARE) return 'notFed';
  if (share <= MORE_SHARE) return 'good';
  // On alternating volts a gap in its iron lets more through.
  return branches[0]!.reactance > 0 ? 'notSeated' : 'moreDrawn';
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
  cells: readonly { judged: SheetCell | null; celsius: number | undefined }[],
  at: number,
): number[] {
  const here = cells[at]!.celsius;
  return parts.flatMap((other, k) => {
    const { judged, celsius = here } = cells[k]!;
    // What wanders is held against nothing.
    const value = judged?.wandered ? undefined : figure(judged);
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
