import { kindOf } from '../kinds/part';
import type { CircuitModel } from '../circuit/model';
import type { Setup } from '../circuit/schema';
import { branchAmps } from '../circuit/world';
import { motionOf } from './predictFluid';

/** Below this nothing is fed, amperes. */
export const LIVE_AMPS = 1e-4;
const LIVE_VOLTS = 0.05;
const MOST_FED = 14;
const MOST_IDLE = 3;

/** A control combination that does something of its own, with what it feeds on the healthy circuit. */
export interface Pattern {
  setup: Setup;
  /** Loads and relays that carry current. */
  loads: string[];
  /** Actuators that are driven, with the direction. */
  driven: string[];
}

/** Control combinations that energise different things, those that energise most first. */
export function workingPatterns(model: CircuitModel): Pattern[] {
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
  return [...fed.slice(0, MOST_FED), ...idle.slice(0, MOST_IDLE)];
}

/** How this circuit is made dead for ohms: the fuse that leaves nothing else live if there is one, else the sources. */
export function powerOff(model: CircuitModel): Setup {
  const { circuit } = model.compiled;
  const sources = circuit.parts.filter(({ kind }) => kind === 'source');
  if (sources.length === 1) {
    for (const { kind, ref } of circuit.parts) {
      if (kind !== 'fuse' && kind !== 'breaker') continue;
      // Nothing may stay live but the fuse's own supply side: a stud left hot beside the work is not dead.
      const cut = model.combinations.every((controls) => {
        const { changed } = model.situation({ controls, pulled: [ref] }).solve({ mode: 'live' });
        return model.compiled.parts.every(
          ({ part, nodes }) =>
            part.kind === 'source' ||
            part.ref === ref ||
            nodes.every((node) => !(Math.abs(changed.pairVolts(node, model.compiled.frame)) > LIVE_VOLTS)),
        );
      });
      if (cut) return { pulled: [ref] };
    }
  }
  return { isolated: sources.map(({ ref }) => ref) };
}

/** How to measure one part alone: plugs at its ends pulled, else its neighbours at one end lifted. */
export function setApart(model: CircuitModel, ref: string, nodes: readonly number[]): Setup | null {
  const { parts } = model.compiled;
  const touching = parts.filter(
    ({ part, nodes: own }) => part.ref !== ref && nodes.some((node) => own.includes(node)),
  );
  const connectors = new Set(touching.flatMap(({ part }) => (part.kind === 'pin' ? [part.connector] : [])));
  if (connectors.size > 0) return { unplugged: [...connectors] };
  for (const node of nodes) {
    const others = touching.filter(({ nodes: own, part }) => own.includes(node) && part.kind !== 'diode');
    if (others.length > 0 && others.length <= 2) {
      const name = model.compiled.nodeNames[node]!;
      return { lifted: others.map(({ part }) => ({ part: part.ref, node: name })) };
    }
  }
  return null;
}
