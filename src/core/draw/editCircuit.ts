import { InputError } from '../circuit/inputError';
import { parseCircuit } from '../circuit/parse';
import type { Circuit, Part } from '../circuit/schema';
import { kindOf } from '../kinds/part';
import { significant } from '../units/significant';
import { layChains, renamed, type Drawing, type Known } from './layChain';

/** Nodes of a part that has exactly two ends in series, as its kind names them. */
export function twoEnds(part: Part): [string, string] | null {
  const nodes = part.nodes as Record<string, string | undefined>;
  if (part.kind === 'pressureSwitch' || part.kind === 'source') return null;
  if (nodes['1'] && nodes['2'] && part.kind !== 'valve') return [nodes['1'], nodes['2']];
  if (nodes.in && nodes.out) return [nodes.in, nodes.out];
  if (nodes.anode && nodes.cathode) return [nodes.anode, nodes.cathode];
  return null;
}

/** How many parts touch a node. */
export function touching(circuit: Circuit, node: string): number {
  return circuit.parts.filter((part) => (Object.values(part.nodes) as string[]).includes(node)).length;
}

/** Takes a part out and closes the run over its place, unless something still lies beside it. */
export function removePart(circuit: Circuit, ref: string): Circuit {
  const part = circuit.parts.find((one) => one.ref === ref);
  if (!part) return circuit;
  const rest = { ...circuit, parts: circuit.parts.filter((one) => one !== part) };
  const ends = twoEnds(part);
  if (!ends) return rest;
  const beside = rest.parts.some((one) => {
    const others = twoEnds(one);
    return others !== null && ends.every((node) => others.includes(node));
  });
  const [near, far] = ends;
  if (beside || touching(rest, near) === 0 || touching(rest, far) === 0) return rest;
  // The frame and a supply keep their names; two of those are never made one.
  const kept = new Set([
    circuit.frame,
    ...circuit.parts.flatMap((one) => (one.kind === 'source' ? [one.nodes['+']] : [])),
  ]);
  if (kept.has(near) && kept.has(far)) return rest;
  const [from, to] = kept.has(far) ? [near, far] : [far, near];
  return { ...rest, parts: rest.parts.map((one) => renamed(one, from, to)) };
}

/** Puts typed parts into the run before one that is drawn. Throws {@link InputError} as `layChains` does. */
export function insertBefore(drawing: Drawing, ref: string, text: string, known?: Known): Drawing {
  const part = drawing.circuit.parts.find((one) => one.ref === ref);
  const ends = part ? twoEnds(part) : null;
  if (!part || !ends)
    throw new InputError('chain', `nothing can be put in before ${ref}: it has no single way through`);
  const [near] = ends;
  const laid = layChains({ ...drawing, at: near }, text, known);
  if (laid.at === null || laid.at === near)
    throw new InputError('chain', `"${text}" comes back to where it began; type parts with a way through`);
  const [key] = Object.entries(part.nodes as Record<string, string>).find(([, node]) => node === near)!;
  const moved = { ...part, nodes: { ...part.nodes, [key]: laid.at } } as Part;
  return {
    at: drawing.at,
    circuit: { ...laid.circuit, parts: laid.circuit.parts.map((one) => (one.ref === ref ? moved : one)) },
  };
}

/** A part with fields set (or taken off, where undefined), checked as a file would be. A new reference is followed everywhere. */
export function changePart(
  circuit: Circuit,
  ref: string,
  change: Readonly<Record<string, unknown>>,
): Circuit {
  const at = circuit.parts.findIndex((one) => one.ref === ref);
  if (at < 0) throw new InputError('part', `there is no ${ref} on the drawing`);
  const before = circuit.parts[at]!;
  const next = Object.fromEntries(
    Object.entries({ ...before, ...change, ...stillAssumed(before, change) }).filter(
      ([, value]) => value !== undefined,
    ),
  );
  const parts: unknown[] = circuit.parts.map((one) => {
    if (one.ref === ref) return next;
    if (one.kind !== 'valve' || typeof change.ref !== 'string') return one;
    return {
      ...one,
      ...(one.coil === ref ? { coil: change.ref } : {}),
      ...(one.coil2 === ref ? { coil2: change.ref } : {}),
    };
  });
  return parseCircuit({ ...circuit, parts });
}

/** What nobody has said yet once some figures are: those that go with one that was said go on with it. */
function stillAssumed(before: Part, change: Readonly<Record<string, unknown>>): Record<string, unknown> {
  if (!before.assumed) return {};
  const assumed = before.assumed.filter((figure) => !(figure in change));
  const figures = before as unknown as Readonly<Record<string, unknown>>;
  const labelled = kindOf(before).labelled;
  const followed = assumed.flatMap((figure): [string, number][] => {
    const how = labelled[figure];
    if (!how || !('follows' in how)) return [];
    const [own, was, is] = [figures[figure], figures[how.follows], change[how.follows]];
    if (typeof own !== 'number' || typeof was !== 'number' || typeof is !== 'number') return [];
    return was === 0 || is === 0
      ? []
      : [[figure, significant(own * (how.inversely ? was / is : is / was), 3)]];
  });
  return { ...Object.fromEntries(followed), assumed: assumed.length > 0 ? assumed : undefined };
}

/** A node under another name; joins the two where the name is taken. */
export function renameNode(circuit: Circuit, from: string, to: string): Circuit {
  return {
    ...circuit,
    frame: circuit.frame === from ? to : circuit.frame,
    parts: circuit.parts.map((part) => renamed(part, from, to)),
  };
}

/** Renames a control's positions or drops it where nothing uses it. */
export function setControl(circuit: Circuit, control: string, positions: string[] | null): Circuit {
  const others = Object.entries(circuit.controls).filter(([name]) => name !== control);
  if (positions === null) return { ...circuit, controls: Object.fromEntries(others) };
  return { ...circuit, controls: { ...circuit.controls, [control]: positions } };
}
