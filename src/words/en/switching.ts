import type { SwitchAnswer } from '@/core/sheets/onCircuit/actuationSheet';
import type { JobSheet } from '@/core/sheets/onCircuit/jobSheet';
import { switchPointWords, type Speaker } from './readings';

const VERDICT: Readonly<Record<NonNullable<SwitchAnswer['verdict']>, string>> = {
  good: 'changes over where it should, every time.',
  sticky: 'changes over at another pressure each time: it sticks. Dirt on its plunger is the usual cause.',
  intermittent: 'changes over, and does not the next time.',
  drifted: 'changes over every time, and not where the drawing says.',
  dead: 'does not change over at all.',
};

/** What the cycles of each pressure switch come to. */
export function actuationFound({ answers, rows }: JobSheet, gaugeUnit: Speaker['gaugeUnit']): string[] {
  return (answers as SwitchAnswer[]).flatMap((answer) => {
    const { part, verdict, makeKpa, breakKpa, findings } = answer;
    const points =
      makeKpa === null || breakKpa === null
        ? []
        : [
            `${part} makes at ${switchPointWords(makeKpa, gaugeUnit)} and breaks at ${switchPointWords(breakKpa, gaugeUnit)}, in the middle of its cycles.`,
          ];
    if (verdict !== null) return [`${part} ${VERDICT[verdict]}`, ...points];
    const wanted = findings.flatMap((one) => ('wanted' in one ? [Number(one.wanted)] : []))[0];
    const read = rows.some(
      ({ name, cells }) => name === part && cells.some((cell) => (cell?.value ?? null) !== null),
    );
    if (!read) return [];
    return [
      wanted === undefined
        ? `Of ${part} it is not known yet.`
        : `${part}: fewer than ${wanted} cycles prove nothing.`,
      ...points,
    ];
  });
}
