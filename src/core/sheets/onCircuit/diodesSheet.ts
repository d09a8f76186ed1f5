import type { CircuitModel } from '../../circuit/model';
import type { Reading, Test } from '../../circuit/schema';
import type { ShopMarks } from '../../tables/marks';
import { judgeDiode, type DiodeAnswer } from '../diode/diode';
import { heldAgainst, uniqueRows } from '../heldAgainst';
import { bareEndOf, type BareEnd } from './bareEnd';
import {
  cellOf,
  figure,
  firstOpen,
  HEAD,
  nameOf,
  pickBetween,
  withoutColumns,
  type JobSheet,
} from './jobSheet';
import type { SheetVerdicts } from './verdicts';

/** Less is no diode that conducts, volts. */
const CONDUCTS_VOLTS = 0.1;

/** Every diode by itself, red on its anode and then on its cathode, with its coil out of the way. */
export function diodesSheetOf(
  model: CircuitModel,
  readings: readonly Reading[],
  marks: ShopMarks,
): JobSheet<'diodes'> {
  const rows = model.compiled.parts.flatMap((diode) => {
    if (diode.part.kind !== 'diode') return [];
    const body = diode.branches[0]!;
    const [anode, cathode] = [nameOf(model, body.a), nameOf(model, body.b)];
    const cell = (from: string, shows: (expected: Reading['value']) => boolean) =>
      cellOf(
        model,
        pickBetween(
          model,
          'diode',
          [anode, cathode],
          (test: Test, expected) => test.kind === 'diode' && test.from === from && shows(expected),
        ),
        readings,
      );
    const forward = cell(anode, (volts) => typeof volts === 'number' && volts > CONDUCTS_VOLTS);
    const reverse = cell(cathode, (volts) => volts === 'OL');
    const document = {
      ...HEAD,
      sheet: 'diode' as const,
      forward: figure(forward),
      reverse: figure(reverse),
      coilOhms: undefined,
      overShows: undefined,
    };
    const answer = judgeDiode(document);
    const bare = bareEndOf(model, diode, body, forward, readings);
    return [
      {
        name: diode.part.ref,
        cells: [forward, reverse, bare.cell],
        verdict: verdictOf(answer.verdict, bare),
        answer,
        held: heldAgainst(document, answer, marks),
      },
    ];
  });
  const whole: JobSheet<'diodes'> = {
    name: 'diodes',
    columns: ['forward', 'reverse', 'forwardAlone'],
    rows: rows.map(({ answer: _answer, held: _held, ...row }) => row),
    next: firstOpen(
      rows.map(({ cells: [forward, reverse, alone], ...row }) => ({
        ...row,
        cells: [forward!, reverse!, row.verdict === 'shortedHere' ? alone! : null],
      })),
    ),
    answers: rows.map(({ answer }) => answer),
    held: uniqueRows(rows.flatMap(({ held }) => held)),
  };
  return withoutColumns(whole, ['forwardAlone']);
}

/** What is said of a diode: what leads both ways as it stands may be something else's. */
function verdictOf(
  verdict: DiodeAnswer['verdict'],
  { cell, isOwn }: BareEnd,
): SheetVerdicts['diodes'] | null {
  if (verdict !== 'shorted') return verdict;
  const alone = figure(cell);
  if (alone === undefined) return isOwn ? 'shorted' : 'shortedHere';
  return alone !== 'OL' && alone < CONDUCTS_VOLTS ? 'shorted' : 'across';
}
