import type { CircuitModel } from '@/core/circuit/model';
import type { Setup } from '@/core/circuit/schema';
import { branchAmps, conductance, nodeKPa, openedFuses } from '@/core/circuit/world';
import { pressureIn, type GaugeMark } from '@/core/units/quantities';
import type { SchematicLayers } from '@/ui/schematic/SchematicFigure';

const LIVE_VOLTS = 0.05;
const LEAST_AMPS = 5e-4;
/** Under this a line counts as vented, kPa. */
const LIVE_KPA = 5;
/** As a meter of two decimals shows it. */
const figure = (value: number, unit: string) =>
  `${Number(Math.abs(value) >= 100 ? value.toFixed(0) : Math.abs(value) >= 10 ? value.toFixed(1) : value.toFixed(2))} ${unit}`;

/** Volts at every node and amperes through every part with the controls as they stand, for writing over the drawing. */
export function tryValues(
  model: CircuitModel,
  setup: Setup,
  gaugeUnit: GaugeMark,
): SchematicLayers & { chatters: boolean; blown: string[] } {
  const { compiled } = model;
  const world = model.situation(setup).solve({ mode: 'live' });
  const nodeText = new Map<number, string>();
  const live = new Set<number>();
  compiled.nodeNames.forEach((_name, node) => {
    if (compiled.domains[node] === 'fluid') {
      const kPa = nodeKPa(world, node);
      nodeText.set(node, figure(pressureIn(gaugeUnit, kPa), gaugeUnit));
      if (Math.abs(kPa) > LIVE_KPA) live.add(node);
      return;
    }
    const volts = world.changed.pairVolts(node, compiled.frame);
    if (Number.isNaN(volts) || node === compiled.frame) return;
    nodeText.set(node, figure(Math.abs(volts) < 5e-4 ? 0 : volts, 'V'));
    if (Math.abs(volts) > LIVE_VOLTS) live.add(node);
  });
  const blockText = new Map<string, string>();
  const closed = new Set<string>();
  for (const { part, branches } of compiled.parts) {
    const electrical = branches.filter(({ domain }) => domain === 'electrical');
    if (electrical.length === 0) continue;
    for (const { index: branch, role, set } of electrical) {
      const contact = part.kind === 'relay' && role !== 'body';
      const amps = Math.abs(branchAmps(world, branch));
      if (amps > LEAST_AMPS && part.kind !== 'wire' && part.kind !== 'pin')
        blockText.set(
          contact ? `${part.ref}/${set + 1}` : part.ref,
          amps < 0.1 ? `${(1000 * amps).toFixed(0)} mA` : figure(amps, 'A'),
        );
    }
    for (const { index: branch, role, set } of electrical) {
      if (conductance(world, branch) <= 1e-9) continue;
      if (part.kind !== 'relay') closed.add(part.ref);
      else if (role !== 'body') closed.add(`${part.ref}/${set + 1}|${role === 'made' ? 'no' : 'nc'}`);
    }
  }
  // What the solver opened, whatever the current was: a window of overload is not a threshold.
  const blown = openedFuses(world).map((index) => compiled.parts[index]!.part.ref);
  return { nodeText, blockText, live, closed, chatters: world.chatters, blown };
}
