import type { Circuit } from '@/core/circuit/schema';

/** A wire and what stands at each of its ends: what a mark on it has to say. */
export interface WireMark {
  ref: string;
  label: string;
  ends: readonly [from: string, to: string];
}

/** Wires of several functions, each once, in the order of their names. */
export function wireMarks(circuits: readonly Circuit[]): WireMark[] {
  const found = new Map<string, WireMark>();
  for (const { parts } of circuits) {
    for (const part of parts) {
      if (part.kind !== 'wire' || found.has(part.ref)) continue;
      const { '1': from = '', '2': to = '' } = part.nodes as Record<string, string>;
      found.set(part.ref, { ref: part.ref, label: part.label ?? '', ends: [from, to] });
    }
  }
  return [...found.values()].sort((a, b) => a.ref.localeCompare(b.ref, 'en', { numeric: true }));
}
