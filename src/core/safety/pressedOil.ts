import { oncePerModel, type CircuitModel } from '../circuit/model';
import type { Reading, Setup, Test } from '../circuit/schema';
import { fluidReach } from './fluidReach';

/** A pump, or an accumulator that holds when the pump has stopped, and every place that its oil reaches, whatever valves stand at. */
interface OilNet {
  from: string;
  nodes: ReadonlySet<number>;
}

const oilNets = oncePerModel(({ compiled }): readonly OilNet[] =>
  compiled.parts.flatMap(({ part }) => {
    const at = part.kind === 'pump' ? part.nodes.out : part.kind === 'accumulator' ? part.nodes.in : null;
    return at === null ? [] : [{ from: part.ref, nodes: fluidReach(compiled, compiled.nodeIndex.get(at)!) }];
  }),
);

/**
 * Places where a test would open oil under pressure, or put a hand to it: a line that is slackened to see whether there is pressure injects
 * oil under the skin. Oil is read by gauges that were fitted while it was let down; a line whose end is stopped is none of these. Nothing is
 * opened where every pump and every accumulator that reaches it is isolated: an accumulator holds long after its pump has stopped.
 */
export function oilOpened(model: CircuitModel, test: Test | Reading): string[] {
  const { setup } = test;
  return openedIn(test).filter((name) => {
    const node = model.compiled.nodeIndex.get(name);
    return oilNets(model).some(
      ({ from, nodes }) => node !== undefined && nodes.has(node) && !setup.isolated?.includes(from),
    );
  });
}

/** Places of the fluid side that a test has open, feels at, or stops by hand. */
export function openedIn(test: Test | Reading): string[] {
  const { setup } = test;
  return [
    ...new Set([
      ...(setup.open ?? []),
      ...(test.kind === 'flow' ? [test.at] : []),
      ...(setup.lifted ?? []).map(({ node }) => node).filter((node) => !setup.plugged?.includes(node)),
      ...stoppedByHand(setup),
    ]),
  ];
}

/** An outlet that is stopped where no line was taken off: a finger, or a plug put in under pressure. */
function stoppedByHand({ plugged = [], lifted = [] }: Setup): string[] {
  return plugged.filter((node) => !lifted.some((end) => end.node === node));
}
