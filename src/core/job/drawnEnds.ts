import type { Circuit, Part } from '../circuit/schema';
import { kindOf } from '../kinds/part';
import type { EntryOf } from './entries';

/** A wire, hose or open port at a part, as the drawing has it. */
export type DrawnEnd = Pick<EntryOf<'wire'>['body'], 'terminal' | 'mark' | 'colour' | 'to'>;

/** Parts that one terminal is said to lead to. */
const MOST_NAMED = 3;
/** What is written of a port that breathes: nothing goes on it, and it must not be closed. */
export const STAYS_OPEN = 'open air, must stay open';

const endsOf = (part: Part) => Object.values(part.nodes as Record<string, string>);

/**
 * Wires and hoses of the circuit that end at a part; through a plug where one is between. A port with nothing but a filter or silencer stays
 * open. A terminal that the drawing joins without a wire has one all the same.
 */
export function drawnEnds({ parts }: Circuit, ref: string): DrawnEnd[] {
  const own = parts.find((one) => one.ref === ref);
  if (!own) return [];
  const beyond = (node: string) =>
    parts
      .filter((other) => other.kind === 'pin' && other.ref !== ref && endsOf(other).includes(node))
      .flatMap((pin) => endsOf(pin).filter((end) => end !== node));
  return Object.entries(own.nodes as Record<string, string>).flatMap(([terminal, node]): DrawnEnd[] => {
    const places = [node, ...beyond(node)];
    const lines = parts.flatMap((line): DrawnEnd[] => {
      const at = endsOf(line).find((end) => places.includes(end));
      if (line.ref === ref || at === undefined) return [];
      if (line.kind === 'silencer') return [{ terminal, mark: line.ref, colour: '', to: STAYS_OPEN }];
      if (line.kind !== 'wire' && line.kind !== 'hose') return [];
      const to = endsOf(line).find((end) => end !== at) ?? '';
      const wire = line.kind === 'wire' ? line : null;
      return [{ terminal, mark: wire?.mark ?? line.ref, colour: wire?.colour ?? '', to }];
    });
    if (lines.length > 0) return lines;
    const others = parts.filter((one) => one.ref !== ref && endsOf(one).includes(node)).map((one) => one.ref);
    return [{ terminal, mark: '', colour: '', to: others.slice(0, MOST_NAMED).join(', ') || node }];
  });
}

/** The part that is worked on, where wires or hoses end on it: not what is plugged in, nor a wire or a hose itself. */
export function endsOn(
  { parts }: Circuit,
  decision: EntryOf<'decision'>['body'] | undefined,
): { part: string; lines: 'wires' | 'hoses' } | null {
  if (!decision || decision.action === 'nothing') return null;
  const part = parts.find(({ ref }) => ref === decision.part);
  if (!part || ['fuse', 'wire', 'hose', 'pin', 'silencer'].includes(part.kind)) return null;
  if (kindOf(part).traits.fluid) return { part: part.ref, lines: 'hoses' };
  const pinned = parts.flatMap((one) => (one.kind === 'pin' ? endsOf(one) : []));
  return endsOf(part).every((end) => pinned.includes(end)) ? null : { part: part.ref, lines: 'wires' };
}
