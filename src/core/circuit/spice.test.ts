import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { joinedEdges } from '../testing/randomNetwork';
import { spiceNetlist, spiceVolts } from '../testing/spiceNetlist';
import { AcMatrix, AcNetwork } from './acNetwork';
import { Matrix, Network } from './network';

/** An outside simulator, ngspice, installed by the test command, solves the same random networks. */
const NODES = 12;
const seeds = Array.from({ length: 8 }, (_one, k) => 100 + k);

function simulate(netlist: string): string {
  const folder = mkdtempSync(join(tmpdir(), 'spiraxis-spice-'));
  const file = join(folder, 'network.cir');
  writeFileSync(file, netlist);
  const done = spawnSync('ngspice', ['-b', file], { encoding: 'utf8' });
  rmSync(folder, { recursive: true });
  if (done.error) throw new Error('ngspice is not installed: apt-get install ngspice', { cause: done.error });
  return done.stdout;
}

function compare(ours: number, theirs: number): void {
  expect(Math.abs(ours - theirs)).toBeLessThan(1e-6 * Math.max(Math.abs(theirs), 1e-3));
}

describe('against ngspice', () => {
  it.each(seeds)('direct current, network %i', (seed) => {
    const edges = joinedEdges(seed, NODES, 14);
    const network = new Network(new Matrix(NODES, [0], edges), edges);
    const volts = spiceVolts(simulate(spiceNetlist(edges, NODES, false)), NODES, false);
    volts.forEach((theirs, k) => compare(network.pairVolts(k + 1, 0), theirs));
  });

  it.each(seeds)('alternating current with coils, network %i', (seed) => {
    const edges = joinedEdges(seed, NODES, 14, true);
    const everywhere = new Uint8Array(NODES).fill(1);
    const network = new AcNetwork(new AcMatrix(NODES, [0], edges, [], everywhere), edges);
    const volts = spiceVolts(simulate(spiceNetlist(edges, NODES, true)), NODES, true);
    volts.forEach((theirs, k) => compare(network.pairVolts(k + 1, 0), theirs));
  });
});
