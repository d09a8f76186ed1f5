import type { WindingPairAnswer } from '@/core/sheets/onCircuit/windingsSheet';
import { findingWords } from './benchSheets';
import { quantity } from './readings';

/** A wire from which nothing leads, by what the drawing has there. */
function openWireWords(wire: string, { drawn, pair }: WindingPairAnswer): string {
  if (wire === drawn.common) return `Nothing leads from ${wire}, the common: it is broken inside.`;
  return `Nothing leads from ${wire}: ${wire === drawn.pullIn ? pair.pullIn : pair.holdIn} is open.`;
}

/** Which wire of each solenoid is which, and how that stands against the drawing. */
export function windingsFound(answers: readonly WindingPairAnswer[]): string[] {
  return answers.flatMap((answer) => {
    const { verdict, common, pullIn, holdIn, pullInOhms, holdInOhms, drawn, off, findings, pair } = answer;
    const who = `${pair.pullIn} with ${pair.holdIn}`;
    const told = findings.map((found) =>
      found.code === 'nothingAt' ? openWireWords(String(found['wire']), answer) : findingWords(found),
    );
    if (verdict === 'short') return [`${who}: nothing but wire between two of them.`, ...told];
    if (verdict !== 'good') return told.length > 0 ? told : [`${who}: not known yet which wire is which.`];
    const which = `${pullIn!} is the pull-in, ${quantity('ohms', pullInOhms!)}; ${holdIn!} the hold-in, ${quantity('ohms', holdInOhms!)}; ${common!} the common.`;
    if (common !== drawn.common || pullIn !== drawn.pullIn)
      return [
        which,
        `Drawn are ${drawn.pullIn}, ${drawn.holdIn} and ${drawn.common} for them: its wires are exchanged, or it is another solenoid.`,
      ];
    return off.length > 0
      ? [which, `As drawn, but ${off.join(' and ')} not by ${off.length > 1 ? 'their' : 'its'} ohms.`]
      : [which, 'As drawn.'];
  });
}
