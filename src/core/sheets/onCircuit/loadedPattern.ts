import type { CircuitModel } from '../../circuit/model';
import type { Setup } from '../../circuit/schema';
import { branchAmps } from '../../circuit/world';

/** Of the commands under which something works, the one that sends most current through a branch; null where none sends any. */
export function loadedPattern(
  model: CircuitModel,
  patterns: readonly { setup: Setup }[],
  branch: number,
): { setup: Setup; amps: number } | null {
  let best: { setup: Setup; amps: number } | null = null;
  for (const { setup } of patterns) {
    if (setup.afterSeconds !== undefined) continue;
    const amps = Math.abs(branchAmps(model.situation(setup).solve({ mode: 'live' }), branch));
    if (amps > 1e-3 && amps > (best?.amps ?? 0)) best = { setup, amps };
  }
  return best;
}
