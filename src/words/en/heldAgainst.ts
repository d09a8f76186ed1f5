import type { HeldRow } from '@/core/sheets/heldAgainst';

/** A limit with its figures and where they come from: "One crimp, lug or bolted joint: good up to 0.05 V, repair from 0.1 V. Shop rules". */
export function heldWords({ row, figures, source }: HeldRow): string {
  const said = figures.map(({ label, value, unit, own }) => {
    const figure = `${label.charAt(0).toLowerCase()}${label.slice(1)} ${value}${unit === '' ? '' : ` ${unit}`}`;
    return own ? `${figure}, the shop’s own figure` : figure;
  });
  return `${row}: ${said.join(', ')}. ${source}.`;
}
