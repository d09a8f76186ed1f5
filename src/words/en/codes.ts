import type { BookRow } from '@/core/codes/bookRow';
import type { FoundCode } from '@/core/codes/describe';

const SYSTEMS: Readonly<Record<string, string>> = {
  J1939: 'SPN and FMI',
  J1587: 'older pair',
  OBD: 'five characters',
  UDS: 'code and failure type',
  pair: 'a pair of numbers',
  maker: 'maker’s own',
  blink: 'blinking lamp',
};

/** "14-5", "SPN 520214 FMI 6", "P0243-13". */
export function codeName({ system, component, failureMode }: FoundCode): string {
  if (system === 'J1939') return `SPN ${component} FMI ${failureMode}`;
  return failureMode === undefined ? String(component) : `${component}-${failureMode}`;
}

/** Lines of a code book: "1 line", "12 lines". */
export function linesWords(count: number): string {
  return `${count} ${count === 1 ? 'line' : 'lines'}`;
}

export function systemName(system: string): string {
  return SYSTEMS[system] ?? system;
}

/** What else the notation says: sender, count, status, older layouts. */
export function codeExtras(code: FoundCode): string[] {
  return [
    code.sourceAddress === undefined ? '' : `from address ${code.sourceAddress}`,
    code.count === undefined ? '' : `counted ${code.count} ${code.count === 1 ? 'time' : 'times'}`,
    code.active === undefined ? '' : code.active ? 'active' : 'stored, not active now',
    ...(code.status ?? []),
    ...(code.ambiguous ?? []).map(
      ({ method, component }) => `layout ${method} would make it SPN ${component}`,
    ),
  ].filter(Boolean);
}

export function bookWords({ text, sheet, note }: BookRow): string {
  return [text, sheet, note].filter(Boolean).join(' · ');
}
