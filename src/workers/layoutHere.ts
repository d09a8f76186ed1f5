import ELK from 'elkjs/lib/elk.bundled.js';
import type { Schematic, SchematicGraph } from '@/core/schematic/schematic';
import { layoutSchematic } from './schematicLayout';

let engine: InstanceType<typeof ELK> | null = null;

/** Places a schematic without a worker: on the server, and in tests. */
export async function layoutHere(graph: SchematicGraph): Promise<Schematic> {
  return layoutSchematic(graph, (engine ??= new ELK()));
}
