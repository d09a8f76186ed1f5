import type { CircuitModel } from '@/core/circuit/model';
import type { Setup } from '@/core/circuit/schema';
import { branchAmps, conductance, nodeKPa } from '@/core/circuit/world';
import type { SchematicLayers } from '@/ui/schematic/SchematicFigure';

const LIVE_VOLTS = 0.05;
const LEAST_AMPS = 5e-4;
const KPA_IN_BAR = 100;
const figure = (value: number, unit: string) => `${Number(value.toPrecision(3))} ${unit}`;

/** Volts at every node and amperes through every part with the controls as they stand, for writing over the drawing. */
export function tryValues(
  model: CircuitModel,
  setup: Setup,
): SchematicLayers & { chatters: boolean; blown: string[] } {
  const { compiled } = model;
  const world = model.situation(setup).solve({ mode: 'live' });
  const nodeText = new Map<number, string>();
  const live = new Set<number>();
  compiled.nodeNames.forEach((_name, node) => {
    if (compiled.domains[node] === 'fluid') {
      const bar = nodeKPa(world, node) / KPA_IN_BAR;
      nodeText.set(node, figure(bar, 'bar'));
      if (Math.abs(bar) > 0.05) live.add(node);
      return;
    }
    const volts = world.changed.pairVolts(node, compiled.frame);
    if (Number.isNaN(volts) || node === compiled.frame) return;
    nodeText.set(node, figure(Math.abs(volts) < 5e-4 ? 0 : volts, 'V'));
    if (Math.abs(volts) > LIVE_VOLTS) live.add(node);
  });
  const partText = new Map<number, string>();
  const closed = new Set<number>();
  for (const { part, branches, index } of compiled.parts) {
    const electrical = branches.filter(({ domain }) => domain === 'electrical');
    if (electrical.length === 0) continue;
    const amps = Math.max(...electrical.map((branch) => Math.abs(branchAmps(world, branch.index))));
    const wiring = part.kind === 'wire' || part.kind === 'pin';
    if (amps > LEAST_AMPS && !wiring) partText.set(index, figure(amps, 'A'));
    const contacts = part.kind === 'relay' ? electrical.filter(({ role }) => role !== 'body') : electrical;
    if (contacts.some((branch) => conductance(world, branch.index) > 1e-9)) closed.add(index);
  }
  const blown = [...world.fuseLoad].flatMap(([index, load]) =>
    load > 1.35 ? [compiled.parts[index]!.part.ref] : [],
  );
  return { nodeText, partText, live, closed, chatters: world.chatters, blown };
}
