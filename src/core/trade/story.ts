import type { Circuit, Reading, Setup, Test } from '../circuit/schema';
import { Diagnoser, type Diagnosis, type DiagnoseOptions } from '../diagnosis/diagnose';
import type { RankedTest } from '../diagnosis/rankTests';
import { shopMarks } from '../tables/marks';
import { MachineUnderTest } from '../testing/machineUnderTest';

/** A shop that has read nothing yet and goes by the tables as they ship. */
export const nothing = { readings: [], baselines: [], marks: shopMarks({}) };

/** The circuit with other figures on one of its parts. */
export function changed(circuit: Circuit, ref: string, figures: object): Circuit {
  const parts = circuit.parts.map((part) => (part.ref === ref ? { ...part, ...figures } : part));
  return { ...circuit, parts: parts as Circuit['parts'] };
}

/** What the program has to say after some readings, put so that a story reads as one. */
export interface Told extends Diagnosis {
  /** The part it names, or null. */
  named: string | null;
  /** Why it does not name one yet. */
  because: string | null;
  first: RankedTest;
  share: (part: string) => number;
  suspect: (part: string, fault: string) => number;
  offered: (test: Partial<Test>) => RankedTest | undefined;
}

/** A machine of the trade with something wrong in it, asked as a technician would ask it. */
export class Story {
  readonly diagnoser: Diagnoser;
  readonly readings: Reading[] = [];
  private readonly machine: MachineUnderTest;

  constructor(circuit: Circuit, fault?: readonly [part: string, name: string, ohms?: number]) {
    this.diagnoser = new Diagnoser(circuit);
    this.machine = new MachineUnderTest(circuit, ...((fault ?? []) as [string, string, number?]));
  }

  /** Takes readings from the machine. */
  take(...tests: Test[]): this {
    for (const test of tests) this.readings.push({ ...test, value: this.machine.value(test) } as Reading);
    return this;
  }

  /** Writes down what somebody else read or said. */
  say(...readings: Reading[]): this {
    this.readings.push(...readings);
    return this;
  }

  ask(options: DiagnoseOptions = {}): Told {
    const told = this.diagnoser.diagnose(this.readings, { most: 40, ...options });
    const { verdict, suspects, next } = told;
    const sum = (of: (one: (typeof suspects)[number]) => boolean) =>
      suspects.filter(of).reduce((total, { share }) => total + share, 0);
    return {
      ...told,
      named: verdict.state === 'name' ? verdict.part : null,
      because: verdict.state === 'keepTesting' ? verdict.because : null,
      first: next[0]!,
      share: (part) => sum((one) => one.part === part),
      suspect: (part, fault) => sum((one) => one.part === part && one.fault === fault),
      offered: (wanted) =>
        next.find(({ test }) =>
          Object.entries(wanted).every(
            ([key, value]) => JSON.stringify(test[key as keyof Test]) === JSON.stringify(value),
          ),
        ),
    };
  }

  /** Follows the program's own first choice until it names, or has nothing left. */
  follow(most = 12): Told {
    for (let taken = 0; taken < most; taken++) {
      const told = this.ask({ most: 3 });
      if (told.named !== null || told.next.length === 0) return told;
      this.take(told.first.test);
    }
    return this.ask();
  }
}

export const at = (controls: Record<string, string>): Setup => ({ controls });
export const works = (part: string, setup: Setup): Test => ({ kind: 'function', part, setup });
export const moves = (part: string, setup: Setup): Test => ({ kind: 'moves', part, setup });
export const click = (part: string, setup: Setup): Test => ({ kind: 'click', part, setup });
export const holds = (part: string, setup: Setup): Test => ({ kind: 'fuse', part, setup });
export const volts = (from: string, to: string, setup: Setup): Test => ({ kind: 'volts', from, to, setup });
export const ohms = (from: string, to: string, setup: Setup): Test => ({ kind: 'ohms', from, to, setup });
export const gauge = (node: string, setup: Setup): Test => ({ kind: 'pressure', at: node, setup });
