import { significant } from '../units/significant';
import { InputError } from '../circuit/inputError';
import type { Part } from '../circuit/schema';
import { PART_KINDS } from '../kinds/part/index';
import { kindOfWords } from './words';

/** One item of a chain as it was typed: a part, or a place to go to. */
export type ChainItem =
  | { is: 'ground' }
  | { is: 'back' }
  | { is: 'node'; node: string }
  /** A part by its reference, its name or its kind. */
  | { is: 'after'; said: string }
  | ({ is: 'known'; ref: string } & Given)
  | ({ is: 'part'; kind: Part['kind']; ref: string | null } & Given);

/** What was said about a part beside its kind. */
export interface Given {
  typed: string;
  label: string;
  /** By field of the part. */
  figures: Readonly<Record<string, number>>;
  /** Control and the positions in which a contact or an output is on. */
  when: { control: string; positions: string[] } | null;
  normallyClosed: boolean;
  lowSide: boolean;
  across: string | null;
  colour: string | null;
  /** References said beside the part's own: the coil of a valve. */
  others: string[];
  ways: string | null;
}

const REF = /^[A-Z]{1,3}\d+[A-Z]?(?:\.\d+)?$/;
const FIGURE =
  /^([-+]?\d*[.,]?\d+(?:e-?\d+)?)(kPa|bar|psi|mbar|kΩ|kohm|k|mΩ|mohm|Ω|ohms?|V|mA|A|W|VA|Hz|mm2|mm²|awg|m|ft|s|sec|seconds|min|mH|H|min)?$/i;
const COLOURS = [
  'red',
  'black',
  'white',
  'blue',
  'green',
  'yellow',
  'brown',
  'orange',
  'grey',
  'violet',
  'pink',
];

/** Unit as typed, the field it fills, and what one of it is in the field's own unit. */
const UNITS: Readonly<Record<string, readonly [string, number]>> = {
  v: ['volts', 1],
  a: ['amps', 1],
  ma: ['amps', 1e-3],
  ohm: ['ohms', 1],
  ohms: ['ohms', 1],
  Ω: ['ohms', 1],
  ω: ['ohms', 1],
  k: ['ohms', 1e3],
  kohm: ['ohms', 1e3],
  kω: ['ohms', 1e3],
  mohm: ['ohms', 1e-3],
  mω: ['ohms', 1e-3],
  kpa: ['kPa', 1],
  bar: ['kPa', 100],
  mbar: ['kPa', 0.1],
  psi: ['kPa', 6.894757],
  w: ['watts', 1],
  va: ['va', 1],
  hz: ['hz', 1],
  mm2: ['mm2', 1],
  'mm²': ['mm2', 1],
  awg: ['awg', 1],
  m: ['lengthMetres', 1],
  ft: ['lengthMetres', 0.3048],
  s: ['seconds', 1],
  sec: ['seconds', 1],
  seconds: ['seconds', 1],
  min: ['accessMinutes', 1],
  mh: ['henries', 1e-3],
  h: ['henries', 1],
};

/** Splits what was typed into runs and their items: commas or arrows between parts, semicolons or lines between runs. */
export function splitChains(text: string): string[][] {
  return text
    .split(/[;\n]+/)
    .map((run) =>
      run
        .split(/,(?!\d)|->|→/)
        .map((item) => item.trim())
        .filter(Boolean),
    )
    .filter((run) => run.length > 0);
}

/** Reads one item. Throws {@link InputError} saying which words were not understood. */
export function readChainItem(typed: string): ChainItem {
  const text = typed.trim();
  if (/^(to )?(ground|frame|earth|gnd|chassis|battery minus|minus)$/i.test(text)) return { is: 'ground' };
  if (/^(back|home|neutral|common)$/i.test(text)) return { is: 'back' };
  const node = /^(?:from |to |at )?@(.+)$/i.exec(text);
  if (node) return { is: 'node', node: node[1]!.trim() };
  const after = /^(?:after|from|at) +(?:the +)?(\S.*)$/i.exec(text);
  if (after) return { is: 'after', said: after[1]! };

  const given = {
    typed: text,
    label: '',
    figures: {} as Record<string, number>,
    when: null as Given['when'],
    normallyClosed: false,
    lowSide: false,
    across: null as string | null,
    colour: null as string | null,
    others: [] as string[],
    ways: null as string | null,
  };
  const refs: string[] = [];
  const words: string[] = [];
  const bare: number[] = [];
  let rest = text
    .replace(/\blow[- ]side\b/i, () => ((given.lowSide = true), ''))
    .replace(/\bhigh[- ]side\b/i, '')
    .replace(/\b(nc|normally closed)\b/i, () => ((given.normallyClosed = true), ''))
    .replace(/\b(no|normally open)\b/i, '')
    .replace(/\b[2345]\/[23]\b/, (ways) => ((given.ways = ways), ''))
    .replace(/\bacross +(\S+)/i, (_all, ref: string) => ((given.across = ref.toUpperCase()), ''))
    .replace(/(\d)\s*\/\s*(\d+)\s*V?\b/i, '$1V:$2');
  // lever=left|right, or "upper limit"=free where the control is more than a word.
  rest = rest.replace(
    /(?:when +)?(?:"([^"]+)"|([\w-]+))\s*=\s*(?:"([^"]+)"|([\w|-]+))/,
    (_all, quoted?: string, word?: string, quotedList?: string, list?: string) => {
      const positions = (quotedList ?? list ?? '').split('|').filter(Boolean);
      given.when = { control: quoted ?? word!, positions };
      return '';
    },
  );
  const tokens = rest.split(/\s+/).filter(Boolean);
  for (let at = 0; at < tokens.length; at++) {
    const token = tokens[at]!;
    const pair = /^(\d+(?:\.\d+)?)V:(\d+(?:\.\d+)?)$/.exec(token);
    if (pair) {
      given.figures.primaryVolts = Number(pair[1]);
      given.figures.secondaryVolts = Number(pair[2]);
      continue;
    }
    const figure = FIGURE.exec(token);
    if (figure) {
      const value = Number(figure[1]!.replace(',', '.'));
      let unit = figure[2];
      const next = tokens[at + 1];
      if (!unit && next && (UNITS[next.toLowerCase()] ?? UNITS[next])) {
        unit = next;
        at++;
      }
      if (!unit) bare.push(value);
      else {
        const [field, factor] = UNITS[unit.toLowerCase()] ?? UNITS[unit]!;
        given.figures[field] = significant(value * factor, 12);
      }
      continue;
    }
    if (REF.test(token)) refs.push(token);
    else if (COLOURS.includes(token.toLowerCase())) given.colour = token.toLowerCase();
    else words.push(token);
  }
  const named = kindOfWords(words.join(' '));
  if (!named) {
    if (refs.length > 0) return { is: 'known', ref: refs[0]!, ...given, label: words.join(' ') };
    throw new InputError(
      'chain',
      `"${text}" names no part; begin it with a kind, such as fuse, wire, switch, plug, coil, or with a reference the machine has`,
    );
  }
  // "X31" for a plug, "DM2" for a driver: the first reference is the part's own, but a valve's coil is said beside it.
  const { kind } = named;
  if (bare.length > 0) {
    const field = PART_KINDS[kind].chain.figure;
    if (!field)
      throw new InputError(
        'chain',
        `"${text}": say what ${bare[0]} is, with its unit; a ${kind} has no main figure`,
      );
    given.figures[field] = bare[0]!;
  }
  const own = kind === 'valve' ? refs.find((ref) => /^(Q|V)\d/.test(ref)) : refs[0];
  given.others = refs.filter((ref) => ref !== own);
  return { is: 'part', kind, ref: own ?? null, ...given, label: labelOf(named.rest, text, kind) };
}

/** "Seat switch" for "seat switch"; nothing where only the kind itself was said. */
function labelOf(rest: string, typed: string, kind: Part['kind']): string {
  if (!rest || kind === 'pin') return '';
  const words = typed
    .split(/\s+/)
    .filter(
      (word) => !REF.test(word) && !FIGURE.test(word) && !word.includes('=') && !/^(nc|no)$/i.test(word),
    )
    .filter((word) => !UNITS[word.toLowerCase()] && !/^\d\/\d$/.test(word))
    .join(' ');
  return words.charAt(0).toUpperCase() + words.slice(1);
}
