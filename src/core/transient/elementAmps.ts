import type { Element } from './elements';
import type { Course } from './run';

/** Current through an element over its course, from its first end to its second, amperes. */
export function elementAmps(
  elements: readonly Element[],
  at: number,
  { seconds, volts, own }: Pick<Course, 'seconds' | 'volts' | 'own'>,
): Float64Array {
  const element = elements[at]!;
  switch (element.kind) {
    case 'inductor':
    case 'solenoid':
    case 'acSolenoid':
    case 'motor':
      return own[at]![0]!;
    case 'source':
      // It counts what it gives out of its plus.
      return own[at]![0]!.map((amps) => -amps);
    case 'resistor':
    case 'filament': {
      const [a, b] = [volts[element.a]!, volts[element.b]!];
      const ohmsAt =
        element.kind === 'resistor'
          ? () => element.ohms
          : (k: number) => element.coldOhms + (element.hotOhms - element.coldOhms) * own[at]![0]![k]!;
      return seconds.map((_t, k) => (a[k]! - b[k]!) / ohmsAt(k));
    }
    case 'capacitor':
    case 'switch':
    case 'diode':
    case 'transformer':
    case 'limiter':
    case 'contact':
    case 'fuse':
      throw new RangeError(`the current of a ${element.kind} is that of what it leads to`);
    default:
      return element satisfies never;
  }
}
