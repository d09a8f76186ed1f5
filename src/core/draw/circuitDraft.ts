import { parseCircuit } from '../circuit/parse';
import type { Guard, PartOf } from '../circuit/partSchema';
import type { Circuit, Part } from '../circuit/schema';
import { significant } from '../units/significant';
import { newPart, nodeBehind, surroundings } from './newPart';

/** Kinds that stand in a run with a way through: two ends in series. */
type InRun = Extract<
  Part,
  { nodes: { '1': string; '2': string } | { in: string; out: string } | { anode: string } }
>['kind'];
/** What is said of a part of a run; the kind's usual figures stand for the rest. */
export type Item = { [K in InRun]: { kind: K; ref: string } & Partial<Extract<Part, { kind: K }>> }[InRun];

/** A coil of which a draft says nothing takes so much, amperes. */
const USUAL_COIL_AMPS = 1.2;

/** Puts a circuit together from runs: chains of parts from one node to another, each made as a typed chain makes it. */
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
      const far = at === items.length - 1 ? to : nodeBehind(item.ref);
      this.parts.push(this.made(item, near, far));
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

  private made(item: Item, near: string, far: string): Part {
    const figures = Object.fromEntries(
      Object.entries(item).filter((field): field is [string, number] => typeof field[1] === 'number'),
    );
    const around = surroundings(this.parts, this.controls, this.frame);
    if (item.kind === 'coil' && figures.watts === undefined)
      figures.ohms ??= significant(around.volts / USUAL_COIL_AMPS, 3);
    const given = {
      ...NOTHING_SAID,
      typed: item.kind,
      label: item.label ?? '',
      figures,
      // What works a contact is said with it; nothing is guessed from its name.
      ...('closedWhen' in item && item.closedWhen ? { when: whenOf(item.closedWhen) } : {}),
    };
    // A draft is written by who knows its figures: the usual ones that it leaves are meant.
    const {
      part: { assumed: _, ...part },
    } = newPart(item.kind, item.ref, near, far, given, around);
    return { ...part, ...item } as Part;
  }
}

const NOTHING_SAID = {
  when: null,
  normallyClosed: false,
  lowSide: false,
  across: null,
  colour: null,
  others: [] as string[],
  ways: null,
};

function whenOf(closedWhen: Readonly<Record<string, readonly string[]>>) {
  const [control, positions] = Object.entries(closedWhen)[0]!;
  return { control, positions: [...positions] };
}

export const battery = (volts: number, ref = 'G1', plus = 'B+', minus = 'GND'): Part => ({
  ref,
  kind: 'source',
  label: 'Battery',
  nodes: { '+': plus, '-': minus },
  volts,
  internalOhms: 0.02,
  how: 'Battery switch off and locked, negative cable off',
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
export const fuse = (ref: string, amps: number): Item => ({ ref, kind: 'fuse', amps });
export const wire = (ref: string, ohms?: number, bundle?: string): Item => ({
  ref,
  kind: 'wire',
  ...(ohms === undefined ? {} : { ohms }),
  ...(bundle ? { bundle } : {}),
});
export const contact = (
  ref: string,
  closedWhen: Record<string, string[]>,
  guards: Guard,
  more: { label?: string; accessMinutes?: number; electronic?: boolean } = {},
): Item => ({ ref, kind: 'switch', closedWhen, guards, electronic: false, ...more });
export const pin = (connector: string, number: number): Item => ({
  ref: `${connector}.${number}`,
  kind: 'pin',
  connector,
});
export const coil = (ref: string, ohms: number, more: Partial<PartOf<'coil'>> = {}): Item => ({
  ref,
  kind: 'coil',
  ohms,
  ...more,
});
export const diode = (ref: string, anode: string, cathode: string): Part => ({
  ref,
  kind: 'diode',
  nodes: { anode, cathode },
});
