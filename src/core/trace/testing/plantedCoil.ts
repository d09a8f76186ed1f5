import type { Edit } from '../../circuit/edits';
import { CircuitModel } from '../../circuit/model';
import type { Circuit, Setup } from '../../circuit/schema';
import { faultByName, listFaults } from '../../diagnosis/faults';
import { type seededRandom } from '../../random';
import type { Iron } from '../../transient/irons';
import { coilFeed } from '../coilFeed';
import type { Switching } from '../coilCourse';
import { partInCircuit } from '../partInCircuit';
import { coilFeatures } from '../coilFeatures';
import type { CoilCondition } from '../conditions';
import { restOf, workedIn } from '../restOf';
import { sampled, type Trace } from '../trace';

/** A coil of a circuit, the positions in which it is switched on and rests, and all of its model. */
export interface CoilPlace {
  model: CircuitModel;
  ref: string;
  on: Setup;
  rest: Setup;
}

/** Coils of a circuit that a position of its controls switches on and another lets go: one of each kind of part. */
export function coilPlaces(circuit: Circuit): CoilPlace[] {
  const model = new CircuitModel(circuit);
  const found = new Map<string, CoilPlace>();
  for (const { part, branches, index } of model.compiled.parts) {
    const own = branches[0];
    if ((part.kind !== 'coil' && part.kind !== 'relay') || !own || own.reactance > 0 || found.has(part.kind))
      continue;
    if (model.compiled.alternating[own.a] === 1) continue;
    const on = workedIn(model, part.ref)?.setup;
    if (!on) continue;
    const rest = restOf(model, part.ref, on);
    if (!rest) continue;
    const { sheet, volts, sourceOhms } = coilFeed(model, part.ref, on);
    // What never pulls in where it stands shows nothing of its plunger.
    if (volts / (sheet.ohms + sourceOhms) < 1.15 * sheet.pull) continue;
    found.set(part.kind, { model, ref: model.compiled.parts[index]!.part.ref, on, rest });
  }
  return [...found.values()];
}

/** Conditions that are planted, those that a steady reading tells included. */
export const PLANTED_CONDITIONS = [
  'sound',
  'jammedOut',
  'jammedIn',
  'slow',
  'weakSpring',
  'shortedTurns',
  'bare',
  'starved',
  'nothing',
] as const satisfies readonly CoilCondition[];

const TIMES: Switching = { on: 0.02, off: 0.27, end: 0.47 };
const STEP_SECONDS = 1e-4;
/** Of a clamp into a recorder: noise and bits, of the range; and its own scale. */
const NOISE = 0.004;
const LEVELS = 2000;
const GAIN = 0.01;
const SLOW_FROM = 1.33;

type Random = ReturnType<typeof seededRandom>;

/** A coil as it is in one machine: its iron is its own, and nobody knows it. */
export class CoilOfMachine {
  private readonly iron: Iron;
  private readonly gain: number;

  constructor(
    private readonly place: CoilPlace,
    private readonly random: Random,
  ) {
    const between = this.between;
    this.gain = 1 + GAIN * random.normal();
    this.iron = {
      openSeconds: between(4e-3, 15e-3),
      grows: between(2, 4),
      strokeMetres: between(1e-3, 4e-3),
      kilogramsByWatt: between(0.7e-3, 4e-3),
      damping: between(0.2, 2),
      spring: between(0.85, 1.2),
    };
  }

  private readonly between = (low: number, high: number): number => low * (high / low) ** this.random.next();

  /** A trace of it in a condition, or null where the circuit has no part for that. */
  take(condition: CoilCondition): Trace | null {
    const { between, iron } = this;
    const { model, ref } = this.place;
    const own = model.compiled.parts.find(({ part }) => part.ref === ref)!.branches[0]!;
    // Its winding is as warm as it is today.
    const ohms = own.ohms * Math.exp(0.03 * this.random.normal());
    const today: Edit = { type: 'ohms', branch: own.index, ohms };
    switch (condition) {
      case 'sound':
        return this.run([today], iron);
      case 'jammedOut':
        return this.run([today], { ...iron, jammed: 'out' });
      case 'jammedIn':
        return this.run([today], { ...iron, jammed: 'in' });
      case 'slow': {
        // A plunger is called slow where it takes a third longer at the least.
        const quick = this.dipOf([today], iron);
        let damping = between(10, 60) * iron.damping;
        for (let k = 0; k < 10 && !(this.dipOf([today], { ...iron, damping }) > SLOW_FROM * quick); k++)
          damping *= 1.5;
        return this.run([today], { ...iron, damping });
      }
      case 'weakSpring':
        return this.run([today], { ...iron, spring: between(0.3, 0.65) * iron.spring });
      case 'shortedTurns':
        return this.run([{ ...today, ohms: ohms * between(0.4, 0.75) }], iron);
      case 'nothing':
        return this.run([{ ...today, ohms: Infinity }], iron);
      case 'bare': {
        const beside = model.compiled.parts.find(
          ({ part, branches }) =>
            part.kind === 'diode' &&
            [branches[0]!.a, branches[0]!.b].sort().join() === [own.a, own.b].sort().join(),
        );
        return beside ? this.run([today, ...this.faultOf(beside.part.ref, 'open')], iron) : null;
      }
      case 'starved': {
        const feed = coilFeed(model, ref, this.place.on);
        const way = listFaults(model).filter(({ fault }) => fault === 'highResistance');
        for (const { ref: part } of way) {
          const edits = this.faultOf(part, 'highResistance', between(0.25, 1) * feed.sheet.ohms);
          if (coilFeed(model, ref, this.place.on, edits).sourceOhms < 0.2 * feed.sheet.ohms) continue;
          return this.run([today, ...edits], iron);
        }
        return null;
      }
      default:
        return condition satisfies never;
    }
  }

  private dipOf(edits: Edit[], iron: Iron): number {
    const { model, ref, on, rest } = this.place;
    const course = partInCircuit(model, ref, { rest, on }, TIMES, edits, new Map([[ref, iron]]));
    return coilFeatures(sampled(course, STEP_SECONDS)).dipSeconds ?? Infinity;
  }

  private faultOf(part: string, fault: string, ohms?: number): Edit[] {
    const found = faultByName(listFaults(this.place.model), part, fault, ohms);
    return found.fault.variants[0]!.edits(found.severity);
  }

  private run(edits: Edit[], iron: Iron): Trace {
    const { model, ref, on, rest } = this.place;
    const { random } = this;
    const supply = 1 + 0.02 * random.normal();
    const sources = model.compiled.branches.filter(
      ({ emf, part }) => emf !== 0 && model.compiled.parts[part]!.part.kind === 'source',
    );
    const today = sources.map(({ index }): Edit => ({ type: 'emf', branch: index, factor: supply }));
    const others = new Map([[ref, iron]]);
    const course = partInCircuit(model, ref, { rest, on }, TIMES, [...edits, ...today], others);
    const { seconds, values } = sampled(course, STEP_SECONDS);
    const range = Math.max(...values.map(Math.abs), 0.05);
    return {
      seconds,
      values: values.map((value) => {
        const shown = this.gain * value + NOISE * range * random.normal();
        return (Math.round((shown / range) * LEVELS) / LEVELS) * range;
      }),
    };
  }
}
