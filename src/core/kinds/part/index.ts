import { accumulator } from './accumulator';
import { airSupply } from './airSupply';
import { breaker } from './breaker';
import { check } from './check';
import { coil } from './coil';
import { cylinder } from './cylinder';
import { diode } from './diode';
import { driver } from './driver';
import { filter } from './filter';
import { fuse } from './fuse';
import { heater } from './heater';
import { hose } from './hose';
import { lamp } from './lamp';
import { motor } from './motor';
import { pin } from './pin';
import { plug } from './plug';
import { proportionalValve } from './proportionalValve';
import { pressureSwitch } from './pressureSwitch';
import { pump } from './pump';
import { regulator } from './regulator';
import { relief } from './relief';
import { relay } from './relay';
import { resistor } from './resistor';
import { sensor3 } from './sensor3';
import { silencer } from './silencer';
import { source } from './source';
import { switchKind } from './switch';
import { throttle } from './throttle';
import { timer } from './timer';
import { transformer } from './transformer';
import { vacuumActuator } from './vacuumActuator';
import { valve } from './valve';
import { wire } from './wire';
import type { PartKind, PartModule, PartTraits } from './module';
import type { LabelFigure, Part } from '../../circuit/partSchema';

/** Every kind of part with everything that is known about it. A kind that is missing here is a type error. */
export const PART_KINDS = {
  source,
  transformer,
  fuse,
  breaker,
  wire,
  pin,
  switch: switchKind,
  relay,
  coil,
  diode,
  resistor,
  lamp,
  heater,
  motor,
  sensor3,
  driver,
  timer,
  airSupply,
  pump,
  accumulator,
  relief,
  regulator,
  filter,
  check,
  hose,
  throttle,
  silencer,
  plug,
  valve,
  proportionalValve,
  cylinder,
  vacuumActuator,
  pressureSwitch,
} as const satisfies { [K in PartKind]: PartModule<K> };

/** Every kind, in the order of the formats. */
export const ALL_KINDS = Object.keys(PART_KINDS) as PartKind[];

/** What is known about a part's kind, asked with the part itself. */
/** Figures of a part's label that nobody has said; those that go with another one ask for nothing of their own. */
export function unsaidFigures(part: Part): LabelFigure[] {
  const { labelled } = kindOf(part);
  return (part.assumed ?? []).filter((figure) => {
    const how = labelled[figure];
    return how !== undefined && 'saidBy' in how;
  });
}

export function kindOf({ kind }: Pick<Part, 'kind'>): PartModule<PartKind> {
  // A part and the module of its kind belong together; no type says so of a union.
  return PART_KINDS[kind] as unknown as PartModule<PartKind>;
}

/** Whether an end of a part is on the air, oil or vacuum side. */
export function isFluidEnd(part: Part, key: string): boolean {
  const { fluidEnd, traits } = kindOf(part);
  return fluidEnd ? fluidEnd(key) : traits.fluid;
}

/** Kinds that have a trait. */
export function kindsThat(trait: keyof PartTraits): PartKind[] {
  return ALL_KINDS.filter((kind) => PART_KINDS[kind].traits[trait]);
}
