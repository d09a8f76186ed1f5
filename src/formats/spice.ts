import { InputError } from '@/core/circuit/inputError';
import type { CircuitModel } from '@/core/circuit/model';
import { parseCircuit } from '@/core/circuit/parse';
import type { Circuit, Part, Setup } from '@/core/circuit/schema';

/** What a part keeps of itself on its first line, so that a netlist comes back as the circuit it was. */
interface Remembered {
  part?: Part;
  /** An element that only belongs to another's part. */
  of?: string;
}

const OPEN_SIEMENS = 1e-11;
/** Our diodes: 0.7 V and 50 mΩ from the first milliamperes on. */
const DIODE_MODEL = '.model SPXD D(IS=1e-12 N=1 RS=0.02)';

/**
 * A circuit in one set-up as a SPICE netlist: what conducts there as resistances, supplies with their inside, diodes as
 * diodes, coils with their inductance. Contacts, outputs and timers stand as they stand in the set-up; the air and oil
 * side is left out. Node 0 is the frame.
 */
export function writeSpice(model: CircuitModel, setup: Setup = {}): string {
  const { compiled } = model;
  const { circuit, nodeNames, domains, frame } = compiled;
  const world = model.situation(setup).solve({ mode: 'live' });
  const names = spiceNodes(nodeNames, frame);
  const hertz = Math.max(0, ...circuit.parts.map((part) => (part.kind === 'source' ? (part.hz ?? 0) : 0)));
  const lines = [`* ${circuit.name.replace(/\s+/g, ' ')}`];
  for (const [name, positions] of Object.entries(circuit.controls))
    lines.push(`* control ${name}: ${positions.join(', ')}; here ${setup.controls?.[name] ?? positions[0]}`);
  lines.push(
    `* circuit ${JSON.stringify({ name: circuit.name, frame: circuit.frame, controls: circuit.controls })}`,
  );
  nodeNames.forEach((name, node) => {
    if (domains[node] === 'electrical') lines.push(`* node ${names[node]} ${name}`);
  });
  for (const { part, branches, index } of compiled.parts) {
    const electrical = branches.filter(({ domain }) => domain === 'electrical');
    if (electrical.length === 0 && part.kind !== 'transformer') continue;
    const safe = part.ref.replace(/\W+/g, '_');
    let told = false;
    const remember = (): string => {
      const kept: Remembered = told ? { of: part.ref } : { part };
      told = true;
      return ` $ ${JSON.stringify(kept)}`;
    };
    if (part.kind === 'transformer') {
      const unit = compiled.transformers.find((one) => one.part === index)!;
      const [p1, p2] = unit.primary.map((node) => names[node]);
      const [s1, s2] = unit.secondary.map((node) => names[node]);
      lines.push(
        `E${safe} ${safe}_i ${s2} ${p1} ${p2} ${1 / unit.ratio}${remember()}`,
        `V${safe}_m ${safe}_i ${safe}_k DC 0 AC 0${remember()}`,
        `R${safe} ${safe}_k ${s1} ${unit.ohms}${remember()}`,
        `F${safe} ${p1} ${p2} V${safe}_m ${1 / unit.ratio}${remember()}`,
      );
      continue;
    }
    electrical.forEach((branch, at) => {
      const edge = world.edges[branch.index]!;
      const [a, b] = [names[branch.a], names[branch.b]];
      const tail = electrical.length > 1 ? `${safe}_${at + 1}` : safe;
      if (part.kind === 'source') {
        const drive = part.hz ? `DC 0 AC ${part.volts}` : `DC ${part.volts}`;
        lines.push(
          `V${tail} ${tail}_i ${b} ${drive}${remember()}`,
          `R${tail} ${a} ${tail}_i ${branch.ohms}${remember()}`,
        );
      } else if (part.kind === 'diode') {
        lines.push(`D${tail} ${a} ${b} SPXD${remember()}`);
      } else if (!(edge.siemens > OPEN_SIEMENS)) {
        // Left out of the network, kept for whoever reads it back.
        lines.push(`* open ${tail} ${a} ${b}${remember()}`);
      } else if (branch.reactance > 0 && hertz > 0) {
        const henries = branch.reactance / (2 * Math.PI * hertz);
        lines.push(
          `R${tail} ${a} ${tail}_l ${branch.ohms}${remember()}`,
          `L${tail} ${tail}_l ${b} ${henries}${remember()}`,
        );
      } else lines.push(`R${tail} ${a} ${b} ${1 / edge.siemens}${remember()}`);
    });
  }
  const loose = circuit.parts.filter(
    (part) =>
      'domain' in part ||
      compiled.parts[compiled.partIndex.get(part.ref)!]!.branches.every(({ domain }) => domain === 'fluid'),
  );
  for (const part of loose)
    if (part.kind !== 'transformer') lines.push(`* fluid ${part.ref} $ ${JSON.stringify({ part })}`);
  if (circuit.parts.some(({ kind }) => kind === 'diode')) lines.push(DIODE_MODEL);
  // A tie that stands for nothing keeps islands from floating.
  nodeNames.forEach((_name, node) => {
    if (node !== frame && domains[node] === 'electrical')
      lines.push(`Rtie${node} ${names[node]} 0 1e12 $ ${JSON.stringify({ of: '' })}`);
  });
  // Where a battery stands beside an alternating supply each side has its own analysis: `.op` for what is direct.
  const direct = circuit.parts.some((part) => part.kind === 'source' && !part.hz);
  if (direct || hertz === 0) lines.push('.op');
  if (hertz > 0) lines.push(`.ac lin 1 ${hertz} ${hertz}`);
  lines.push('.end', '');
  return lines.join('\n');
}

/** Names that a simulator takes: 0 for the frame, letters, digits and underscores for the rest, each once. */
export function spiceNodes(nodeNames: readonly string[], frame: number): string[] {
  const taken = new Set<string>();
  return nodeNames.map((name, node) => {
    if (node === frame) return '0';
    const plain = `n_${name.replace(/\W+/g, '_').toLowerCase()}`;
    let own = plain;
    for (let n = 2; taken.has(own); n++) own = `${plain}_${n}`;
    taken.add(own);
    return own;
  });
}

const SCALE: Readonly<Record<string, number>> = {
  t: 1e12,
  g: 1e9,
  meg: 1e6,
  k: 1e3,
  m: 1e-3,
  u: 1e-6,
  n: 1e-9,
  p: 1e-12,
};

/**
 * Reads a netlist: R, V, D and L elements, comments, `.end`; one written by `writeSpice` comes back as the circuit it
 * was. R becomes a resistor, V a supply, D a diode, L in series with an R that part's inductance. Throws `InputError`
 * naming the line for anything else.
 */
export function readSpice(text: string, name = 'Netlist'): Circuit {
  const parts: Part[] = [];
  let head: Partial<Circuit> = {};
  const known = new Set<string>();
  const lines = text.split(/\r?\n/);
  lines.forEach((raw, at) => {
    const line = at + 1;
    const { code, kept } = split(raw, line);
    if (kept?.part) {
      parts.push(kept.part);
      return;
    }
    if (kept?.of !== undefined) return;
    const circuit = /^\*\s*circuit\s+(\{.*\})$/.exec(raw.trim());
    if (circuit) {
      head = JSON.parse(circuit[1]!) as Partial<Circuit>;
      return;
    }
    // The first line of a netlist is its title, whatever it says.
    if (code === '' || code.startsWith('*') || (at === 0 && !/^[RVDL]\w*\s+\w+\s+\w+\s+[\d.]/i.test(code)))
      return;
    if (/^\.(end|op|ac|model|title|options?|temp)\b/i.test(code)) return;
    const words = code.split(/\s+/);
    const [element = '', a = '', b = ''] = words;
    const letter = element[0]!.toUpperCase();
    if (!'RVDL'.includes(letter))
      throw new InputError(
        `line ${line}`,
        `"${element}" is no element this reads; it takes R, V, D and L, and leaves subcircuits and controlled sources`,
      );
    if (!a || !b) throw new InputError(`line ${line}`, `"${code}" needs two nodes`);
    const ref = element;
    if (known.has(ref))
      throw new InputError(`line ${line}`, `"${ref}" stands on two lines; give each element its own name`);
    known.add(ref);
    const node = (one: string) => (one === '0' ? 'GND' : one);
    if (letter === 'R') {
      const ohms = quantity(words[3], line, 'ohms');
      if (!(ohms > 0))
        throw new InputError(`line ${line}`, `${ref} has ${ohms} ohms; give more than nothing`);
      parts.push({ ref, kind: 'resistor', nodes: { '1': node(a), '2': node(b) }, ohms });
    } else if (letter === 'V') {
      const ac = words.findIndex((word) => /^ac$/i.test(word));
      const volts = quantity(
        ac >= 0 ? words[ac + 1] : /^dc$/i.test(words[3] ?? '') ? words[4] : words[3],
        line,
        'volts',
      );
      parts.push({
        ref,
        kind: 'source',
        nodes: { '+': node(a), '-': node(b) },
        volts,
        internalOhms: 0,
        ...(ac >= 0 && volts !== 0 ? { hz: 60 } : {}),
      });
    } else if (letter === 'D')
      parts.push({ ref, kind: 'diode', nodes: { anode: node(a), cathode: node(b) } });
    else {
      const henries = quantity(words[3], line, 'henries');
      const series = parts.findLast(
        (part) => part.kind === 'resistor' && [part.nodes['1'], part.nodes['2']].includes(node(a)),
      );
      if (series?.kind !== 'resistor')
        throw new InputError(
          `line ${line}`,
          `${ref} has no resistance in series before it; write its R first`,
        );
      const far =
        series.nodes['2'] === node(a)
          ? { '1': series.nodes['1'], '2': node(b) }
          : { '1': node(b), '2': series.nodes['2'] };
      parts[parts.indexOf(series)] = {
        ref: series.ref,
        kind: 'coil',
        nodes: far,
        ohms: series.ohms,
        henries,
      };
    }
  });
  if (parts.length === 0) throw new InputError('file', 'no element; a netlist has lines such as "R1 a b 10"');
  return parseCircuit({
    format: 'spiraxis-circuit',
    version: 1,
    name: head.name ?? name,
    frame: head.frame ?? 'GND',
    controls: head.controls ?? {},
    parts,
  });
}

function split(raw: string, line: number): { code: string; kept: Remembered | null } {
  const at = raw.indexOf(' $ {');
  if (at < 0) return { code: raw.replace(/[;$].*$/, '').trim(), kept: null };
  try {
    return { code: raw.slice(0, at).trim(), kept: JSON.parse(raw.slice(at + 3)) as Remembered };
  } catch {
    throw new InputError(
      `line ${line}`,
      'what stands after "$" was cut; bring the line back or take the remark off',
    );
  }
}

function quantity(text: string | undefined, line: number, what: string): number {
  const match = /^([-+]?[\d.]+(?:e[-+]?\d+)?)(t|g|meg|k|m|u|n|p)?[a-z]*$/i.exec(text ?? '');
  const value = match ? Number(match[1]) * (SCALE[match[2]?.toLowerCase() ?? ''] ?? 1) : NaN;
  if (!Number.isFinite(value))
    throw new InputError(`line ${line}`, `"${text ?? ''}" is no figure of ${what}; write 10, 4.7k or 2m`);
  return value;
}
