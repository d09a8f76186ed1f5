import type { Circumstance } from '../circuit/circumstances';
import type { CircuitModel } from '../circuit/model';
import { branchAmps, type World } from '../circuit/world';
import { kindOf } from '../kinds/part';
import { typicalSeverity } from './faults';
import type { CandidateFault } from './faultTypes';
import { LIVE_AMPS } from './patterns';
import { motionOf } from './predictFluid';

/** What is said of work that nobody asked for: whether a fault would show it follows from the circuit. */
export const STRAY_SIGNS = [
  'movesByItself',
  'doesNotStop',
  'wrongOneMoves',
] as const satisfies Circumstance[];
export type StraySign = (typeof STRAY_SIGNS)[number];

export function isStraySign(sign: Circumstance): sign is StraySign {
  return (STRAY_SIGNS as readonly Circumstance[]).includes(sign);
}

/** Share of its usual current from which a load that was not asked for counts as working. */
const WORKS_SHARE = 0.5;

/** A control combination, with the parts that work in it on the sound machine. */
interface Command {
  solve: (edits: Parameters<ReturnType<CircuitModel['situation']>['solve']>[1]) => World;
  asked: ReadonlySet<number>;
}

/** Which faults make something work that was not asked for: with nothing asked, or beside what was. */
export class StrayWork {
  private readonly usualAmps: number[];
  private readonly commands: Command[];
  private readonly known = new Map<StraySign, boolean[]>();

  constructor(
    private readonly model: CircuitModel,
    private readonly faults: readonly CandidateFault[],
  ) {
    const { parts } = model.compiled;
    this.usualAmps = parts.map(() => 0);
    this.commands = model.combinations.map((controls): Command => {
      const solver = model.situation({ controls });
      const solve: Command['solve'] = (edits) => solver.solve({ mode: 'live' }, edits);
      const world = solve([]);
      parts.forEach((_part, at) => {
        this.usualAmps[at] = Math.max(this.usualAmps[at]!, this.ampsOf(world, at));
      });
      const asked = parts.flatMap((_part, at) =>
        this.ampsOf(world, at) > LIVE_AMPS || this.isDriven(world, at) ? [at] : [],
      );
      return { solve, asked: new Set(asked) };
    });
  }

  /** Whether each fault, of middling size, shows what was said in one of the ways it may sit; by index of the fault. */
  shown(sign: StraySign): readonly boolean[] {
    const known = this.known.get(sign);
    if (known) return known;
    const idle = sign !== 'wrongOneMoves';
    const commands = this.commands.filter(({ asked }) => (asked.size === 0) === idle);
    const made = this.faults.map((fault) => {
      const size = typicalSeverity(fault);
      return commands.some(({ asked, solve }) =>
        fault.variants.some(({ edits }) => {
          const world = solve(edits(size));
          return this.model.compiled.parts.some((_part, at) => !asked.has(at) && this.works(world, at));
        }),
      );
    });
    this.model.tidy();
    this.known.set(sign, made);
    return made;
  }

  private works(world: World, at: number): boolean {
    const usual = this.usualAmps[at]!;
    return (usual > LIVE_AMPS && this.ampsOf(world, at) > WORKS_SHARE * usual) || this.isDriven(world, at);
  }

  /** Current of a load; nothing for what moves no more than current. */
  private ampsOf(world: World, at: number): number {
    const { part, branches } = this.model.compiled.parts[at]!;
    return kindOf(part).traits.load ? Math.abs(branchAmps(world, branches[0]!.index)) : 0;
  }

  private isDriven(world: World, at: number): boolean {
    const { part } = this.model.compiled.parts[at]!;
    return kindOf(part).traits.actuator && motionOf(world, at).direction !== 0;
  }
}
