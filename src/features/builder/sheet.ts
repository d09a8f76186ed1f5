import 'server-only';
import { gaugeOn } from '@/core/circuit/medium';
import { CircuitModel } from '@/core/circuit/model';
import { findLanes } from '@/core/path/lanes';
import { schematicGraph } from '@/core/schematic/schematicGraph';
import { layoutHere } from '@/workers/layoutHere';
import { openDrawing } from './server';

/** A function's sheet for printing: its schematic placed, and its parts and wires as lists. */
export async function openSheet(code: string, functionId: string) {
  const desk = await openDrawing(code, { functionId });
  if (!desk || desk.circuit.parts.length === 0) return null;
  const model = new CircuitModel(desk.circuit);
  const { nodeNames } = model.compiled;
  const points = findLanes(model).pointOf;
  return {
    machine: desk.machine,
    gaugeUnit: gaugeOn(model, desk.gaugeUnit),
    name: desk.name,
    version: desk.version,
    kept: desk.versions[0] ?? null,
    circuit: desk.circuit,
    schematic: await layoutHere(schematicGraph(model)),
    points: [...points],
    nodes: [...points]
      .sort((a, b) => a[1] - b[1])
      .map(([node, point]) => ({ point, name: nodeNames[node]! })),
  };
}
export type OpenSheet = NonNullable<Awaited<ReturnType<typeof openSheet>>>;
