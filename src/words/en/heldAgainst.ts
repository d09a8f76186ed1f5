import type { InsulationPass } from '@/core/tables/insulationPass';
import type { HeldRow } from '@/core/sheets/heldAgainst';

/** A limit with its figures and where they come from: "One crimp, lug or bolted joint: good up to 0.05 V, repair from 0.1 V. Shop rules". */
export function heldWords({ row, figures, source, equipment }: HeldRow): string {
  const said = figures.map(({ label, value, unit, own }) => {
    // Where the row says it all its only column has no name of its own.
    const named = label === 'Figure' ? '' : `${label.charAt(0).toLowerCase()}${label.slice(1)} `;
    const figure = `${named}${value}${unit === '' ? '' : ` ${unit}`}`;
    switch (own) {
      case 'table':
        return figure;
      case 'shop':
        return `${figure}, the shop’s own figure`;
      case 'equipment':
        return `${figure}, the shop’s own figure for ${equipment}`;
    }
  });
  return `${row}: ${said.join(', ')}. ${source}.`;
}

/** A mark that insulation is held against, as a form offers it: "the table’s row of its class". */
export function passWords(pass: InsulationPass): string {
  switch (pass) {
    case 'table':
      return 'the table’s row of its class';
    case 'megohm':
      return 'one megohm';
    case 'kvPlusOne':
      return 'kilovolts plus one, megohms';
    case 'overRange':
      return 'over range only';
  }
}
