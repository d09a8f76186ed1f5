import { areLineVolts } from '../safety/lineVolts';
import { kindOf } from '../kinds/part';
import { mediumOf } from '../circuit/medium';
import type { CircuitModel } from '../circuit/model';
import type { Test } from '../circuit/schema';
import { isDeadKind, nodesOfTest } from '../circuit/testPlace';
import { branchAmps, type World } from '../circuit/world';
import { freedLoads } from '../safety/heldLoads';
import { holdsRefrigerant } from '../safety/refrigerant';
import { reachesElectronics } from './legality';
import { LIVE_AMPS } from './patterns';
import { bindTest } from './predict';
import { motionOf } from './predictFluid';

/** Something a person must know before touching anything; the wording is the interface's. */
export type Caution =
  | 'live'
  | 'moves'
  | 'lineVolts'
  | 'powerOff'
  | 'unplug'
  | 'mayBlowFuse'
  | 'testerVolts'
  | 'electronicsOff'
  | 'takeOut'
  | 'heldLoad'
  | 'freedLoad'
  | 'pressedLoad'
  | 'pressure'
  | 'oil'
  | 'refrigerant'
  | 'jumper'
  | 'swap'
  | 'benchSupply';

/** What can hurt in a test, from its set-up and what the sound circuit does in it: for the program's tests and a person's own. */
export function cautionsOf(model: CircuitModel, test: Test): Caution[] {
  const { setup, kind } = test;
  const { compiled } = model;
  const some = (list: readonly unknown[] | undefined) => list !== undefined && list.length > 0;
  const dead = isDeadKind(kind);
  const carries = (name: string) => compiled.domains[compiled.nodeIndex.get(name) ?? -1] === 'fluid';
  const fluid = nodesOfTest(test).some(carries) || kind === 'moves';
  const cold = nodesOfTest(test).some((name) => holdsRefrigerant(model, name));
  // What stands blocked is said all the same: the block has to be there first.
  const { secured: _secured, ...loose } = setup;
  const freed = freedLoads(model, loose);
  const lines = (setup.lifted ?? []).filter(({ node }) => carries(node));
  const pressed =
    (fluid && !cold) || some(setup.override) || some(setup.open) || some(setup.plugged) || some(lines);
  const found: [Caution, boolean][] = [
    ['heldLoad', freed.some(({ by }) => by === 'cut')],
    ['freedLoad', freed.some(({ by }) => by === 'fed')],
    ['pressedLoad', freed.some(({ by }) => by === 'pressure')],
    ['testerVolts', kind === 'insulation'],
    [
      'electronicsOff',
      kind === 'insulation' && (some(setup.lifted) || reachesElectronics(model, bindTest(model, test))),
    ],
    ['lineVolts', !dead && !fluid && areLineVolts(compiled.supplyVolts)],
    // A hand pump moves what hangs on it.
    ['moves', kind === 'hold' || (!dead && works(model, test))],
    ['jumper', some(setup.jumpers)],
    ['refrigerant', cold],
    ['oil', pressed && mediumOf(model) === 'oil'],
    ['pressure', pressed && mediumOf(model) !== 'oil'],
    ['mayBlowFuse', kind === 'fuse'],
    ['unplug', some(setup.unplugged)],
    ['takeOut', some(setup.removed) || some(setup.lifted) || some(setup.open)],
    ['swap', some(setup.swapped)],
    ['benchSupply', some(setup.energised)],
    ['powerOff', dead],
    ['live', !dead],
  ];
  return found.filter(([, holds]) => holds).map(([caution]) => caution);
}

/** Whether the sound machine does what it is made for in a test's set-up. */
function works(model: CircuitModel, { setup }: Test): boolean {
  return isWorking(model, model.situation(setup).solve({ mode: 'live' }));
}

/** Whether anything is fed or driven in a solved circuit. */
export function isWorking(model: CircuitModel, world: World): boolean {
  return model.compiled.parts.some(({ part, index, branches }) => {
    if (kindOf(part).traits.actuator) return motionOf(world, index).direction !== 0;
    const load = kindOf(part).traits.draws;
    return load && Math.abs(branchAmps(world, branches[0]!.index)) > LIVE_AMPS;
  });
}
