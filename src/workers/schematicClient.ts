import ELK from 'elkjs/lib/elk-api.js';
import type { Schematic, SchematicGraph } from '@/core/schematic/schematic';
import type { Answer } from './protocol';
import { layoutSchematic } from './schematicLayout';

const PATIENCE_MS = 15_000;

/** Places schematics in a worker that stays for the next one; a worker that crashed or hangs is replaced. */
export class SchematicClient {
  private engine: InstanceType<typeof ELK> | null = null;
  private fail: (message: string) => void = () => undefined;

  async layout(graph: SchematicGraph): Promise<Answer<Schematic>> {
    const engine = (this.engine ??= this.start());
    let timer: ReturnType<typeof setTimeout> | undefined;
    const stopped = new Promise<Answer<Schematic>>((resolve) => {
      this.fail = (message) => {
        this.close();
        resolve({ ok: false, message, input: false });
      };
      timer = setTimeout(() => this.fail('The drawing took too long to lay out'), PATIENCE_MS);
    });
    const placed = layoutSchematic(graph, engine).then(
      (value): Answer<Schematic> => ({ ok: true, value }),
      (error: unknown): Answer<Schematic> => ({
        ok: false,
        message: `The drawing could not be laid out: ${error instanceof Error ? error.message : String(error)}`,
        input: false,
      }),
    );
    return Promise.race([placed, stopped]).finally(() => clearTimeout(timer));
  }

  close(): void {
    this.engine?.terminateWorker();
    this.engine = null;
  }

  private start(): InstanceType<typeof ELK> {
    return new ELK({
      workerFactory: () => {
        const worker = new Worker(new URL('./schematic.worker.ts', import.meta.url), { type: 'module' });
        worker.addEventListener('error', (event) => {
          event.preventDefault();
          this.fail(`The drawing could not be laid out: ${event.message || 'the worker could not start'}`);
        });
        return worker;
      },
    });
  }
}
