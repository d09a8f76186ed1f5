import type { CircuitModel } from '../circuit/model';
import { branchAmps } from '../circuit/world';

/** The most that pieces carry on the sound machine, at once where a timer feeds. */
export function mostAmps(model: CircuitModel, pieces: readonly number[]): number {
  const timed = model.compiled.circuit.parts.some(({ kind }) => kind === 'timer');
  const setups = model.combinations.flatMap((controls) => [
    { controls },
    ...(timed ? [{ controls, afterSeconds: 0 }] : []),
  ]);
  return setups.reduce((top, setup) => {
    const world = model.situation(setup).solve({ mode: 'live' });
    return pieces.reduce((high, index) => Math.max(high, Math.abs(branchAmps(world, index))), top);
  }, 0);
}
