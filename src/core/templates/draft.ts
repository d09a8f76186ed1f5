import { parseCircuit } from '../circuit/parse';
import type { Guard } from '../circuit/partSchema';
import type { Circuit, Part } from '../circuit/schema';

type Without<T> = T extends unknown ? Omit<T, 'nodes'> : never;
/** A part of a run, without its nodes. */
export type Item = Without<
  Extract<Part, { nodes: { '1': string } | { in: string; out: string } | { anode: string } }>
>;

/** Puts a circuit together from runs: chains of parts from one node to another. */
export class Draft {
  private readonly parts: Part[] = [];
  private readonly controls: Record<string, string[]> = {};

  constructor(
    private readonly name: string,
    private readonly frame = 'GND',
    private readonly environment: Circuit['environment'] = undefined,
  ) {}

  /** A control and its positions; the first is rest. */
  control(name: string, ...positions: string[]): this {
    this.controls[name] = positions;
    return this;
  }

  /** Parts in series from one node to another. The node behind each is named after it: "F7:2". */
  run(from: string, to: string, ...items: Item[]): this {
    let near = from;
    items.forEach((item, at) => {
      const far = at === items.length - 1 ? to : `${item.ref}:2`;
      const ends =
        item.kind === 'diode'
          ? { anode: near, cathode: far }
          : item.kind === 'regulator' || item.kind === 'filter' || item.kind === 'check'
            ? { in: near, out: far }
            : { '1': near, '2': far };
      this.parts.push({ ...item, nodes: ends } as Part);
      near = far;
    });
    return this;
  }

  add(part: Part): this {
    this.parts.push(part);
    return this;
  }

  circuit(): Circuit {
    return parseCircuit({
      format: 'spiraxis-circuit',
      version: 1,
      name: this.name,
      frame: this.frame,
      controls: this.controls,
      parts: this.parts,
      ...(this.environment ? { environment: this.environment } : {}),
    });
  }
}

export const battery = (volts: number, ref = 'G1', plus = 'B+', minus = 'GND'): Part => ({
  ref,
  kind: 'source',
  label: 'Battery',
  nodes: { '+': plus, '-': minus },
  volts,
  internalOhms: 0.02,
  how: 'Battery switch off and locked, negative cable off',
  accessMinutes: 0.5,
});
export const line = (volts: number, ref = 'G1', hot = 'L1', neutral = 'N', hz = 60): Part => ({
  ref,
  kind: 'source',
  label: 'Line supply',
  nodes: { '+': hot, '-': neutral },
  volts,
  hz,
  internalOhms: 0.2,
  how: 'Main switch off and locked',
  accessMinutes: 1,
});
export const fuse = (ref: string, amps: number): Item => ({ ref, kind: 'fuse', amps, accessMinutes: 0.4 });
export const wire = (ref: string, ohms = 0.04, bundle?: string): Item => ({
  ref,
  kind: 'wire',
  ohms,
  ...(bundle ? { bundle } : {}),
});
export const contact = (
  ref: string,
  closedWhen: Record<string, string[]>,
  guards: Guard,
  more: { label?: string; accessMinutes?: number } = {},
): Item => ({ ref, kind: 'switch', closedWhen, guards, ...more });
export const pin = (connector: string, number: number): Item => ({
  ref: `${connector}.${number}`,
  kind: 'pin',
  connector,
  accessMinutes: 1,
});
export const coil = (ref: string, ohms: number, volts: number, more: object = {}): Item => ({
  ref,
  kind: 'coil',
  ohms,
  pullInAmps: Number(((0.6 * volts) / ohms).toPrecision(2)),
  holdAmps: Number(((0.2 * volts) / ohms).toPrecision(2)),
  accessMinutes: 1.5,
  ...more,
});
export const diode = (ref: string, anode: string, cathode: string): Part => ({
  ref,
  kind: 'diode',
  nodes: { anode, cathode },
});
