import type { Part } from './partSchema';

/** Controls that work a part. */
export function controlsOf(part: Part): string[] {
  if (part.kind === 'sensor3') return part.control ? [part.control] : [];
  return Object.keys(part.kind === 'driver' ? part.onWhen : 'closedWhen' in part ? part.closedWhen : {});
}
