import { InputError } from '@/core/circuit/inputError';
import { parseCircuit } from '@/core/circuit/parse';
import type { Circuit, Part, PartOf } from '@/core/circuit/schema';
import { readTable, writeTable } from './table';

const COLUMNS = ['ref', 'from', 'to', 'mark', 'colour', 'gauge', 'length', 'ohms', 'bundle'] as const;
const MOST_ROWS = 2000;
/** A connector's pin as wiring lists write it: "X31.2" or "X31-2" or "X31:2". */
const PIN = /^([A-Z]{1,3}\d+[A-Z]?)[.:-](\w+)$/;

/**
 * A circuit's wires and plug pins as a wiring list: from, to, mark, colour, gauge, length in metres. Pins are rows too,
 * under their own reference, so that the list alone says what joins what.
 */
export function writeWireList(circuit: Circuit): string {
  const rows = circuit.parts.flatMap((part) => {
    if (part.kind !== 'wire' && part.kind !== 'pin') return [];
    const [from, to] = [part.nodes['1'], part.nodes['2']];
    if (part.kind === 'pin') return [{ ref: part.ref, from, to, mark: '', ohms: part.ohms ?? '' }];
    return [
      {
        ref: part.ref,
        from,
        to,
        mark: part.mark ?? '',
        colour: part.colour ?? '',
        gauge: part.mm2 !== undefined ? `${part.mm2} mm2` : part.awg !== undefined ? `${part.awg} AWG` : '',
        length: part.lengthMetres ?? '',
        ohms: part.ohms ?? '',
        bundle: part.bundle ?? '',
      },
    ];
  });
  return writeTable(COLUMNS, rows);
}

/** What a wiring list did to a circuit. */
export interface WireListResult {
  circuit: Circuit;
  added: string[];
  changed: string[];
}

/**
 * Lays a wiring list into a circuit. Ends are nodes of the circuit, ends of its parts ("F7.2"), or pins ("X31.2"), which
 * are made where they are new; a row whose reference or mark is a wire already changes that wire. Throws `InputError`
 * naming the line and the field; the circuit given is not touched.
 */
export function readWireList(text: string, circuit: Circuit): WireListResult {
  const rows = readTable(text, ['from', 'to']);
  if (rows.length === 0)
    throw new InputError('file', 'no wires; write a header with from and to, and a line a wire');
  if (rows.length > MOST_ROWS) throw new InputError('file', `${rows.length} lines; at most ${MOST_ROWS}`);
  const parts = new Map(circuit.parts.map((part) => [part.ref, part]));
  const nodes = new Set(circuit.parts.flatMap((part) => Object.values(part.nodes) as string[]));
  const added: string[] = [];
  const changed: string[] = [];
  // What the list itself names: a pin's row gives both of its sides, and "W2:2" is the far end of its wire W2.
  const listed = new Set(rows.flatMap(({ cells }) => (cells.ref?.trim() ? [pinRef(cells.ref)] : [])));
  const free = (letter: string) => {
    let n = 1;
    while (parts.has(`${letter}${n}`)) n++;
    return `${letter}${n}`;
  };
  /** Sides of a new pin are taken in the order that wires come to it. */
  const sides = new Map<string, number>();
  const nodeOf = (named: string, line: number, field: string): string => {
    const name = named.trim();
    if (name === '')
      throw new InputError(`line ${line}, ${field}`, 'nothing given; name a node, a pin or a part’s end');
    if (nodes.has(name) || listed.has(name)) return name;
    const match = PIN.exec(name);
    if (match && !listed.has(match[1]!)) {
      const [, ref, end] = match as unknown as [string, string, string];
      const owner = parts.get(ref);
      const own = owner && (owner.nodes as Record<string, string>)[end];
      if (own) return own;
      if (owner)
        throw new InputError(
          `line ${line}, ${field}`,
          `"${name}": ${ref} has no end "${end}"; it has ${Object.keys(owner.nodes).join(', ')}`,
        );
      const pin = `${ref}.${end}`;
      const made = parts.get(pin) as PartOf<'pin'> | undefined;
      if (!made) {
        parts.set(pin, {
          ref: pin,
          kind: 'pin',
          connector: ref,
          nodes: { '1': `${pin}:1`, '2': `${pin}:2` },
        });
        added.push(pin);
      }
      const side = (sides.get(pin) ?? 0) + 1;
      sides.set(pin, side);
      // An old pin is met from its first side; of a new one the first wire takes side 1, every later one side 2.
      return (parts.get(pin) as PartOf<'pin'>).nodes[side === 1 ? '1' : '2'];
    }
    return name;
  };
  for (const { line, cells } of rows) {
    const cell = (name: string) => cells[name]?.trim() ?? '';
    const [from, to] = [nodeOf(cell('from'), line, 'from'), nodeOf(cell('to'), line, 'to')];
    if (from === to)
      throw new InputError(
        `line ${line}, to`,
        `"${cell('to')}" is where the wire begins; name its other end`,
      );
    const ohms = number(cell('ohms'), line, 'ohms', 'ohms');
    const named = cell('ref');
    if (PIN.test(named)) {
      const ref = pinRef(named);
      put(
        {
          ...(parts.get(ref) ?? {}),
          ref,
          kind: 'pin',
          connector: ref.slice(0, ref.indexOf('.')),
          nodes: { '1': from, '2': to },
          ...(ohms === undefined ? {} : { ohms }),
        },
        line,
      );
      continue;
    }
    const known =
      parts.get(named) ??
      (cell('mark')
        ? [...parts.values()].find((part) => part.kind === 'wire' && part.mark === cell('mark'))
        : undefined);
    if (known && known.kind !== 'wire')
      throw new InputError(
        `line ${line}, ref`,
        `${named} is a ${known.kind}, not a wire; give the wire another reference`,
      );
    const length = number(cell('length'), line, 'length', 'metres');
    put(
      {
        ...(known ?? {}),
        ref: known?.ref ?? (named || free('W')),
        kind: 'wire',
        nodes: { '1': from, '2': to },
        ...(cell('mark') ? { mark: cell('mark') } : {}),
        ...(cell('colour') ? { colour: cell('colour') } : {}),
        ...(cell('bundle') ? { bundle: cell('bundle') } : {}),
        ...gaugeOf(cell('gauge'), line),
        ...(length === undefined ? {} : { lengthMetres: length }),
        ...(ohms === undefined ? {} : { ohms }),
      },
      line,
    );
  }
  return { circuit: parseCircuit({ ...circuit, parts: [...parts.values()] }), added, changed };

  function put(part: Partial<Part> & { ref: string }, line: number): void {
    if (!/^\S{1,40}$/.test(part.ref))
      throw new InputError(
        `line ${line}, ref`,
        `"${part.ref}" is no reference; one word of at most 40 characters`,
      );
    (parts.has(part.ref) ? changed : added).push(part.ref);
    parts.set(part.ref, part as Part);
    for (const node of Object.values(part.nodes ?? {})) nodes.add(node as string);
  }
}

function pinRef(text: string): string {
  return text.trim().replace(PIN, '$1.$2');
}

function number(text: string, line: number, field: string, unit: string): number | undefined {
  if (text === '') return undefined;
  const value = Number(text.replace(',', '.').replace(/(\d)\s*[a-zΩ]+$/i, '$1'));
  if (Number.isFinite(value) && value >= 0) return value;
  throw new InputError(`line ${line}, ${field}`, `"${text}" is no figure; write it in ${unit}, such as 2.5`);
}

function gaugeOf(text: string, line: number): { mm2?: number; awg?: string | number } {
  if (text === '') return {};
  const awg = /^(0{1,4}|\d{1,2})\s*awg$/i.exec(text) ?? /^awg\s*(0{1,4}|\d{1,2})$/i.exec(text);
  if (awg) return { awg: /^0{2,4}$/.test(awg[1]!) ? awg[1]! : Number(awg[1]) };
  const mm2 = Number(
    text
      .replace(/\s*(mm2|mm²|sq|qmm)$/i, '')
      .replace(',', '.')
      .trim(),
  );
  if (Number.isFinite(mm2) && mm2 > 0) return { mm2 };
  throw new InputError(`line ${line}, gauge`, `"${text}" is no gauge; write 1.5 mm2 or 18 AWG`);
}
