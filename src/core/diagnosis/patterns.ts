import { kindOf } from '../kinds/part';
import { oncePerModel } from '../circuit/model';
import type { Setup } from '../circuit/schema';
import { branchAmps } from '../circuit/world';
import { motionOf } from './predictFluid';

/** Below this nothing is fed, amperes. */
export const LIVE_AMPS = 1e-4;
const MOST_IDLE = 3;

/** A control combination that does something of its own, with what it feeds on the healthy circuit. */
export interface Pattern {
  setup: Setup;
  /** Loads and relays that carry current. */
  loads: string[];
  /** Actuators that are driven, with the direction. */
  driven: string[];
}

/** Control combinations that energise different things, and a few that energise nothing. */
export const workingPatterns = oncePerModel((model): readonly Pattern[] => {
  const { compiled } = model;
  const patterns = new Map<string, Pattern>();
  const timers = compiled.circuit.parts.some(({ kind }) => kind === 'timer');
  const sensors = compiled.circuit.parts.flatMap((part) =>
    part.kind === 'sensor3' && part.control ? [part.control] : [],
  );
  for (const controls of model.combinations) {
    for (const afterSeconds of timers ? [undefined, 0.1] : [undefined]) {
      const setup: Setup = {
        ...(Object.keys(controls).length > 0 ? { controls } : {}),
        ...(afterSeconds === undefined ? {} : { afterSeconds }),
      };
      const solver = model.situation(setup);
      const world = solver.solve({ mode: 'live' });
      const loads = compiled.parts
        .filter(({ part }) => kindOf(part).traits.draws)
        .filter(({ branches }) => Math.abs(branchAmps(world, branches[0]!.index)) > LIVE_AMPS)
        .map(({ part }) => part.ref);
      const motions = compiled.parts
        .filter(({ part }) => kindOf(part).traits.actuator)
        .map(({ part, index }) => ({ ref: part.ref, direction: motionOf(world, index).direction }))
        .filter(({ direction }) => direction !== 0);
      // What is commanded matters as well as what flows: a broken interlock must be tried in its closed position.
      const idle = loads.length > 0 ? '' : solver.situation.commanded.join('');
      const moves = motions.map(({ ref, direction }) => ref + direction).join();
      // A sensor reads otherwise in each position, though the same current flows.
      const senses = sensors.map((control) => controls[control]).join();
      const key = `${loads.join()}|${moves}|${senses}|${timers ? afterSeconds : ''}|${idle}`;
      if (!patterns.has(key)) patterns.set(key, { setup, loads, driven: motions.map(({ ref }) => ref) });
    }
  }
  const list = [...patterns.values()];
  const fed = list.filter(({ loads }) => loads.length > 0);
  const idle = list.filter(({ loads }) => loads.length === 0);
  return [...fed, ...idle.slice(0, MOST_IDLE)];
});
