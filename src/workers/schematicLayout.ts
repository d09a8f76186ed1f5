import type { ElkExtendedEdge, ElkNode } from 'elkjs/lib/elk-api.js';
import type { Schematic, SchematicGraph } from '@/core/schematic/schematic';
import { strikes } from '@/core/schematic/strikes';

const SIDE = { west: 'WEST', east: 'EAST', south: 'SOUTH' } as const;
const OPTIONS = {
  'elk.algorithm': 'layered',
  'elk.direction': 'RIGHT',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.spacing.nodeNode': '26',
  'elk.spacing.edgeNode': '16',
  'elk.spacing.edgeEdge': '14',
  'elk.layered.spacing.nodeNodeBetweenLayers': '62',
  'elk.layered.spacing.edgeNodeBetweenLayers': '26',
  'elk.layered.spacing.edgeEdgeBetweenLayers': '14',
  'elk.layered.nodePlacement.strategy': 'BRANDES_KOEPF',
  // The order in which parts were drawn decides wherever nothing else does: a part added moves little else.
  'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
  'elk.layered.crossingMinimization.forceNodeModelOrder': 'true',
  'elk.layered.thoroughness': '1',
  'elk.padding': '[top=24,left=24,bottom=24,right=24]',
  'elk.randomSeed': '1',
};

/** A drawing this many times wider than it is high is folded into rows. */
const WIDEST = 4.5;
/** And no sheet narrower than this, px, is folded at all. */
const LONG = 2600;
const FOLDED = {
  'elk.layered.wrapping.strategy': 'MULTI_EDGE',
  'elk.layered.wrapping.correctionFactor': '1.4',
  'elk.aspectRatio': '2.4',
};

/** What lays graphs out: a worker in the browser, the same code in place elsewhere. */
export interface LayoutEngine {
  layout(graph: ElkNode): Promise<ElkNode>;
}

/** Places a schematic by a layered layout. Same graph, same drawing. */
export async function layoutSchematic(
  { blocks, wires }: SchematicGraph,
  engine: LayoutEngine,
): Promise<Schematic> {
  const graph: ElkNode = {
    id: 'sheet',
    layoutOptions: OPTIONS,
    children: blocks.map(({ id, width, height, ports }) => ({
      id,
      width,
      height,
      layoutOptions: { 'elk.portConstraints': 'FIXED_POS' },
      ports: ports.map((port) => ({
        id: port.id,
        x: port.x,
        y: port.y,
        width: 0,
        height: 0,
        layoutOptions: { 'elk.port.side': SIDE[port.side] },
      })),
    })),
    edges: wires.map(({ id, from, to }) => ({ id, sources: [from], targets: [to] })),
  };
  const flat = placed(await engine.layout(graph), blocks, wires);
  if (flat.width < LONG || flat.width < WIDEST * flat.height) return flat;
  // The library folds well where one run is simply long; where it strikes a part, the long sheet is the better one.
  const folded = placed(
    await engine.layout({ ...graph, layoutOptions: { ...OPTIONS, ...FOLDED } }),
    blocks,
    wires,
  );
  return strikes(folded).length === 0 ? folded : flat;
}

function placed(sheet: ElkNode, blocks: SchematicGraph['blocks'], wires: SchematicGraph['wires']): Schematic {
  const places = new Map((sheet.children ?? []).map((child) => [child.id, child]));
  const routes = new Map(((sheet.edges ?? []) as ElkExtendedEdge[]).map((edge) => [edge.id, edge]));
  return {
    width: sheet.width ?? 0,
    height: sheet.height ?? 0,
    blocks: blocks.map((block) => {
      const { x = 0, y = 0 } = places.get(block.id)!;
      return { ...block, x, y };
    }),
    wires: wires.map((wire) => {
      const [section] = routes.get(wire.id)!.sections ?? [];
      return {
        ...wire,
        points: section ? [section.startPoint, ...(section.bendPoints ?? []), section.endPoint] : [],
      };
    }),
  };
}
