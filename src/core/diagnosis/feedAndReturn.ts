import type { CircuitModel } from '../circuit/model';
import { nodeGroups } from '../circuit/nodeGroups';
import type { Setup } from '../circuit/schema';
import { branchAmps } from '../circuit/world';
import { LIVE_AMPS } from './patterns';

/** One way between a supply and a load: the feed to it, or the return from it. */
export interface Run {
  side: 'feed' | 'return';
  from: string;
  to: string;
}

/** Two terminals that feed a circuit: a source, or a transformer's secondary; both in the order out, back. */
interface Feeder {
  out: number;
  back: number;
  transformer: number | null;
}

/**
 * Feed and return of a load in a set-up, from the terminals of what feeds its own circuit: the source, or the transformer's secondary.
 * A run without length is left out, and so is a load that several supplies feed: which of them loses the volts is not one reading.
 */
export function runsOf(model: CircuitModel, ref: string, setup: Setup): Run[] {
  const { compiled } = model;
  const body = compiled.parts[compiled.partIndex.get(ref)!]!.branches[0];
  const feeder = feederOf(model, ref);
  if (!body || !feeder) return [];
  const world = model.situation(setup).solve({ mode: 'live' });
  const between = (a: number, b: number) => Math.abs(world.changed.pairVolts(a, b));
  // Which end is fed is the one nearer to the supply's way out.
  const straight = between(feeder.out, body.a) + between(body.b, feeder.back);
  const crossed = between(feeder.out, body.b) + between(body.a, feeder.back);
  const [near, far] = straight <= crossed ? [body.a, body.b] : [body.b, body.a];
  const name = (node: number) => compiled.nodeNames[node]!;
  const runs: Run[] = [
    { side: 'feed', from: name(feeder.out), to: name(near) },
    { side: 'return', from: name(far), to: name(feeder.back) },
  ];
  return runs.filter(({ from, to }) => from !== to);
}

/** Where a load's current is clamped beside its own: on the way into the transformer that feeds it. */
export function clampsOf(model: CircuitModel, ref: string, setup: Setup): string[] {
  const { compiled } = model;
  const transformer = feederOf(model, ref)?.transformer ?? null;
  if (transformer === null) return [];
  const { primary } = compiled.transformers[transformer]!;
  const world = model.situation(setup).solve({ mode: 'live' });
  const carrier = compiled.branches.find(
    ({ index, a, b }) =>
      (primary.includes(a) || primary.includes(b)) && Math.abs(branchAmps(world, index)) > LIVE_AMPS,
  );
  return carrier ? [compiled.parts[carrier.part]!.part.ref] : [];
}

function feederOf({ compiled }: CircuitModel, ref: string): Feeder | null {
  const { branches, frame, parts, transformers } = compiled;
  const body = parts[compiled.partIndex.get(ref)!]!.branches[0];
  if (!body) return null;
  const group = nodeGroups(
    compiled.nodeNames.length,
    (node) => node === frame,
    branches.filter(({ domain }) => domain === 'electrical').map(({ a, b }) => [a, b]),
  );
  const own = new Set([body.a, body.b].filter((node) => node !== frame).map((node) => group[node]!));
  const feeds = (nodes: readonly number[]) => nodes.some((node) => node !== frame && own.has(group[node]!));
  const feeders: Feeder[] = [
    ...parts.flatMap(({ part }): Feeder[] =>
      part.kind === 'source'
        ? [
            {
              out: compiled.nodeIndex.get(part.nodes['+'])!,
              back: compiled.nodeIndex.get(part.nodes['-'])!,
              transformer: null,
            },
          ]
        : [],
    ),
    ...transformers.map(({ secondary }, at) => ({ out: secondary[0], back: secondary[1], transformer: at })),
  ].filter(({ out, back }) => feeds([out, back]));
  return feeders.length === 1 ? feeders[0]! : null;
}
