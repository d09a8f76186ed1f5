import { circuitSchema, type Circuit } from '../../src/core/circuit/schema';

/** Two-wire functions off one supply, plugs, suppression diodes and a loom: eight are 60 parts, with a lever of nine positions. */
export function largeCircuit(functions = 8): Circuit {
  const positions = ['rest', ...Array.from({ length: functions }, (_one, k) => `f${k}`)];
  const parts: unknown[] = [
    { ref: 'G1', kind: 'source', nodes: { '+': 'B+', '-': 'GND' }, volts: 25.2, internalOhms: 0.02 },
    { ref: 'F1', kind: 'fuse', nodes: { '1': 'B+', '2': 'F' }, amps: 20 },
    { ref: 'W0', kind: 'wire', nodes: { '1': 'F', '2': 'C' }, ohms: 0.02 },
    { ref: 'W99', kind: 'wire', nodes: { '1': 'R', '2': 'GND' }, ohms: 0.01 },
  ];
  for (let k = 0; k < functions; k++) {
    parts.push(
      { ref: `S${k}`, kind: 'switch', nodes: { '1': 'C', '2': `S${k}` }, closedWhen: { lever: [`f${k}`] } },
      { ref: `W${k}a`, kind: 'wire', nodes: { '1': `S${k}`, '2': `X${k}` }, ohms: 0.05, bundle: 'loom' },
      { ref: `X${k}.1`, kind: 'pin', connector: `X${k}`, nodes: { '1': `X${k}`, '2': `Y${k}a` } },
      { ref: `Y${k}`, kind: 'coil', nodes: { '1': `Y${k}a`, '2': `Y${k}b` }, ohms: 28 + k },
      { ref: `V${k}`, kind: 'diode', nodes: { anode: `Y${k}b`, cathode: `Y${k}a` } },
      { ref: `X${k}.2`, kind: 'pin', connector: `X${k}`, nodes: { '1': `Y${k}b`, '2': `Z${k}` } },
      { ref: `W${k}b`, kind: 'wire', nodes: { '1': `Z${k}`, '2': 'R' }, ohms: 0.05 },
    );
  }
  return circuitSchema.parse({
    format: 'spiraxis-circuit',
    version: 1,
    name: `${4 + 7 * functions} parts`,
    frame: 'GND',
    controls: { lever: positions },
    parts,
  });
}
