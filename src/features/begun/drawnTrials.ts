import type { Circuit } from '@/core/circuit/schema';
import type { Trial } from '../desk/trials';

/** What can be tried on a circuit; the engine is loaded only where the server could not say it. */
export async function drawnTrials(circuit: Circuit): Promise<Trial[]> {
  const [{ CircuitModel }, { trialsOf }] = await Promise.all([
    import('@/core/circuit/model'),
    import('../desk/trials'),
  ]);
  return trialsOf(circuit, new CircuitModel(circuit));
}
