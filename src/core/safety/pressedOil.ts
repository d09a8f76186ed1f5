import { oncePerModel, type CircuitModel } from '../circuit/model';
import type { Reading, Setup, Test } from '../circuit/schema';

/** A pump and every place that its oil reaches, whatever its valves stand at. */
interface OilNet {
  pump: string;
  nodes: ReadonlySet<number>;
}

const oilNets = oncePerModel(({ compiled }): readonly OilNet[] => {
  const joined = compiled.branches.filter(
    ({ domain, a, b }) => domain === 'fluid' && a !== compiled.atmosphere && b !== compiled.atmosphere,
  );
  return compiled.parts.flatMap(({ part }) => {
    if (part.kind !== 'pump') return [];
    const nodes = new Set([compiled.nodeIndex.get(part.nodes.out)!]);
    for (let before = -1; before !== nodes.size;) {
      before = nodes.size;
      for (const { a, b } of joined) {
        if (nodes.has(a)) nodes.add(b);
        if (nodes.has(b)) nodes.add(a);
      }
    }
    return [{ pump: part.ref, nodes }];
  });
});

/**
 * Places where a test would open oil under pressure, or put a hand to it: a line that is slackened to see whether there is pressure injects
 * oil under the skin. Oil is read by gauges that were fitted while it was let down; a line whose end is stopped is none of these. Nothing is
 * opened where every pump that reaches it is isolated.
 */
export function oilOpened(model: CircuitModel, test: Test | Reading): string[] {
  const { setup } = test;
  const opened = new Set([
    ...(setup.open ?? []),
    ...(test.kind === 'flow' ? [test.at] : []),
    ...(setup.lifted ?? []).map(({ node }) => node).filter((node) => !setup.plugged?.includes(node)),
    ...stoppedByHand(setup),
  ]);
  return [...opened].filter((name) => {
    const node = model.compiled.nodeIndex.get(name);
    return oilNets(model).some(
      ({ pump, nodes }) => node !== undefined && nodes.has(node) && !setup.isolated?.includes(pump),
    );
  });
}

/** An outlet that is stopped where no line was taken off: a finger, or a plug put in under pressure. */
function stoppedByHand({ plugged = [], lifted = [] }: Setup): string[] {
  return plugged.filter((node) => !lifted.some((end) => end.node === node));
}
