import type { Part } from '../circuit/schema';

/** What a word of a chain stands for. */
export interface PartWord {
  kind: Part['kind'];
  /** Letter that its references begin with, in the manner of IEC 81346. */
  letter: string;
  /** Field that a bare number fills. */
  figure: string | null;
}

/** Letter and main figure of each kind. */
export const KIND_WORDS: Readonly<Record<Part['kind'], Omit<PartWord, 'kind'>>> = {
  source: { letter: 'G', figure: 'volts' },
  transformer: { letter: 'T', figure: 'secondaryVolts' },
  fuse: { letter: 'F', figure: 'amps' },
  breaker: { letter: 'F', figure: 'amps' },
  wire: { letter: 'W', figure: 'ohms' },
  pin: { letter: 'X', figure: null },
  switch: { letter: 'S', figure: 'ohms' },
  relay: { letter: 'K', figure: 'ohms' },
  coil: { letter: 'Y', figure: 'ohms' },
  diode: { letter: 'V', figure: 'forwardVolts' },
  resistor: { letter: 'R', figure: 'ohms' },
  lamp: { letter: 'H', figure: 'ohms' },
  heater: { letter: 'E', figure: 'ohms' },
  motor: { letter: 'M', figure: 'ohms' },
  sensor3: { letter: 'B', figure: 'ohms' },
  driver: { letter: 'A', figure: 'limitAmps' },
  timer: { letter: 'K', figure: 'seconds' },
  airSupply: { letter: 'P', figure: 'kPa' },
  pump: { letter: 'P', figure: 'kPa' },
  regulator: { letter: 'Z', figure: 'kPa' },
  filter: { letter: 'Z', figure: null },
  check: { letter: 'RV', figure: null },
  hose: { letter: 'L', figure: null },
  throttle: { letter: 'RZ', figure: 'restriction' },
  silencer: { letter: 'U', figure: null },
  plug: { letter: 'U', figure: null },
  valve: { letter: 'Q', figure: null },
  cylinder: { letter: 'C', figure: null },
  vacuumActuator: { letter: 'C', figure: 'pullKPa' },
  pressureSwitch: { letter: 'B', figure: 'makeKPa' },
};

/** Words for each kind, the longest first where one holds another. */
const WORDS: readonly (readonly [Part['kind'], readonly string[]])[] = [
  ['pressureSwitch', ['pressure switch', 'air switch', 'oil switch', 'vacuum switch']],
  ['vacuumActuator', ['vacuum actuator', 'vacuum capsule']],
  ['airSupply', ['air supply', 'air main', 'compressor', 'vacuum pump', 'air', 'vacuum']],
  ['source', ['battery', 'line supply', 'supply', 'source', 'line', 'mains', 'charger']],
  ['transformer', ['control transformer', 'transformer']],
  ['breaker', ['circuit breaker', 'breaker']],
  ['fuse', ['fusible link', 'fuse']],
  ['timer', ['timer', 'timed contact', 'delay']],
  ['sensor3', ['position sensor', 'three-wire sensor', '3-wire sensor', 'sensor', 'potentiometer']],
  ['switch', ['push button', 'pushbutton', 'button', 'selector', 'switch', 'contact', 'interlock', 'limit']],
  ['relay', ['relay coil', 'contactor', 'relay']],
  ['coil', ['valve coil', 'solenoid', 'winding', 'coil', 'clutch', 'brake']],
  ['diode', ['suppressor', 'diode']],
  ['resistor', ['resistor', 'resistance']],
  ['lamp', ['lamp', 'light', 'beacon', 'bulb']],
  ['heater', ['heater', 'glow plug', 'element']],
  ['motor', ['motor', 'fan']],
  ['driver', ['controller output', 'driver', 'output']],
  ['pin', ['connector', 'plug', 'pin', 'terminal']],
  ['wire', ['wire', 'cable', 'lead', 'core', 'strap']],
  ['pump', ['oil pump', 'pump']],
  ['regulator', ['regulator']],
  ['filter', ['filter', 'water trap']],
  ['check', ['check valve', 'non-return valve']],
  ['throttle', ['throttle', 'restrictor']],
  ['hose', ['hose', 'pipe', 'tube']],
  ['silencer', ['silencer', 'exhaust']],
  ['valve', ['valve']],
  ['cylinder', ['cylinder', 'ram']],
];

/** The kind that a phrase names, with what is left of the phrase; null when no word is known. */
export function kindOfWords(phrase: string): { kind: Part['kind']; rest: string } | null {
  let best: { kind: Part['kind']; at: number; word: string } | null = null;
  const text = phrase.toLowerCase();
  for (const [kind, words] of WORDS) {
    for (const word of words) {
      const found = new RegExp(`(^|\\s)${word.replace(/[-]/g, '[- ]?')}s?(?=$|\\s)`).exec(text);
      if (!found) continue;
      const at = found.index + found[1]!.length;
      // The word that comes last is the noun ("seat switch", "motor breaker"); of two there, the longer one.
      const end = at + word.length;
      const bestEnd = best ? best.at + best.word.length : -1;
      if (!best || end > bestEnd || (end === bestEnd && word.length > best.word.length))
        best = { kind, at, word };
    }
  }
  if (!best) return null;
  const rest = `${phrase.slice(0, best.at)} ${phrase.slice(best.at + best.word.length)}`;
  return { kind: best.kind, rest: rest.replace(/\s+/g, ' ').trim() };
}

/** Every word that begins an item of a chain, for offering while one types. */
export const CHAIN_WORDS: readonly string[] = [
  ...WORDS.flatMap(([, words]) => words.slice(0, 1)),
  'ground',
  'back',
];
