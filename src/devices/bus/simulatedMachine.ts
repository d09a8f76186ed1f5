import type { Edit } from '@/core/circuit/edits';
import { CircuitModel } from '@/core/circuit/model';
import type { Circuit, Setup } from '@/core/circuit/schema';
import { setupSchema } from '@/core/circuit/schema';
import { DM1, DM2, encodeDm, encodeJ1939 } from '@/core/codes/j1939';
import type { BusQuestion } from '@/core/codes/requests';
import { packBroadcast } from '@/core/codes/transport';
import { codedDrivers } from '@/core/diagnosis/codeEvidence';
import { bindTest, predict, predictedValue } from '@/core/diagnosis/predict';

const ENGINE_SPEED = 0x0cf00400;
const PRIORITY = 0x18000000;
const AMBER_ON = 0x04;
const NO_FLASH = 0xff;

/** A function of the simulated machine with what is secretly wrong with it. */
export interface SimulatedFunction {
  name: string;
  circuit: Circuit;
  edits: readonly Edit[];
  /** Number that the controller gives each of the circuit's drivers. */
  components: ReadonlyMap<string, number>;
}

/**
 * A machine on a bus: one controller that watches its drivers and says once a second which codes are there. The codes
 * come from solving each function's circuit with its hidden fault, in the set-up that the machine stands in.
 */
export class SimulatedMachine {
  private readonly functions;
  private occurrences = new Map<string, number>();
  private active: [number, number][] = [];

  /** `always`: codes that are always there and have nothing to do with the functions. */
  constructor(
    functions: readonly SimulatedFunction[],
    private readonly address: number,
    private readonly always: readonly (readonly [number, number])[] = [],
  ) {
    this.functions = functions.map((one) => {
      const model = new CircuitModel(one.circuit);
      const drivers = codedDrivers(model).filter(({ part }) => one.components.has(part));
      return { ...one, model, drivers, setup: drivers[0]?.setup ?? {} };
    });
    this.watch();
  }

  /** The set-up that each function stands in. */
  get standing(): Record<string, Setup> {
    return Object.fromEntries(this.functions.map(({ name, setup }) => [name, setup]));
  }

  /** Puts a function into a set-up. Throws `InputError` for one that its circuit cannot be put into. */
  handle(name: string, setup: unknown): void {
    const one = this.functionNamed(name);
    const parsed = setupSchema.parse(setup);
    one.model.situation(parsed);
    one.setup = parsed;
    this.watch();
  }

  /** Active codes, component and failure mode. */
  get codes(): readonly (readonly [number, number])[] {
    return this.active;
  }

  /** What the controller says once a second: its active codes, in one frame or several. */
  codeFrames(): [number, number[]][] {
    return this.message(DM1, this.active);
  }

  /** What it answers to a question that anybody may ask. */
  answerFrames(question: BusQuestion): [number, number[]][] {
    switch (question) {
      case 'earlier': {
        const now = new Set(this.active.map(([component, mode]) => `${component}-${mode}`));
        const earlier = [...this.occurrences.keys()].filter((key) => !now.has(key));
        return this.message(
          DM2,
          earlier.map((key) => key.split('-').map(Number) as [number, number]),
        );
      }
      default:
        return question satisfies never;
    }
  }

  private message(group: number, list: readonly (readonly [number, number])[]): [number, number[]][] {
    const codes = list.map(([component, mode]) =>
      encodeJ1939(component, mode, this.occurrences.get(`${component}-${mode}`) ?? 1),
    );
    const payload = encodeDm([this.active.length > 0 ? AMBER_ON : 0, NO_FLASH], codes);
    if (payload.length > 8) return packBroadcast(group, this.address, payload);
    return [[(PRIORITY | (group << 8) | this.address) >>> 0, payload]];
  }

  /** The ordinary talk of a bus between codes. */
  talkFrames(seconds: number): [number, number[]][] {
    const speed = Math.round((820 + 12 * Math.sin(seconds)) * 8);
    return [[ENGINE_SPEED, [0xff, 0xff, 0xff, speed & 255, speed >> 8, 0xff, 0xff, 0xff]]];
  }

  private functionNamed(name: string) {
    const found = this.functions.find((one) => one.name === name);
    if (!found) throw new Error(`the simulated machine has no function "${name}"`);
    return found;
  }

  private watch(): void {
    const found = this.functions.flatMap(({ model, drivers, setup, edits, components }) =>
      drivers.flatMap(({ part }): [number, number][] => {
        const test = { kind: 'code', part, setup } as const;
        const modes = predictedValue('code', predict(bindTest(model, test), edits)) as number[];
        return modes.map((mode) => [components.get(part)!, mode]);
      }),
    );
    const before = new Set(this.active.map(String));
    this.active = [...found, ...this.always.map(([component, mode]): [number, number] => [component, mode])];
    for (const [component, mode] of this.active) {
      if (before.has(`${component},${mode}`)) continue;
      const key = `${component}-${mode}`;
      this.occurrences.set(key, Math.min((this.occurrences.get(key) ?? 0) + 1, 126));
    }
  }
}
