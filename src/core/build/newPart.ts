import type { Circuit, Part } from '../circuit/schema';
import { controlOf } from './controlOf';
import type { Given } from './chainItem';

/** What stands around a part that is being made. */
export interface Surroundings {
  controls: Circuit['controls'];
  frame: string;
  /** Supply of the run: nominal volts of its source, its hot node, and where it goes home. */
  volts: number;
  plus: string;
}

/** Coil current at which it pulls in, and at which it lets go, as shares of its nominal current (IEC 60947-4-1 asks for 85 % of volts hot). */
const PULL_IN = 0.6;
const HOLD = 0.2;
/** A controller's own sight of its load: below and above these shares of the healthy current it sets a code. */
const OPEN_LOAD = 0.15;
const OVERLOAD = 1.6;
const round = (value: number) => Number(value.toPrecision(3));

/** Minutes to get at a part with a probe, before anybody has said otherwise. */
export const ACCESS_MINUTES: Readonly<Partial<Record<Part['kind'], number>>> = {
  source: 0.5,
  fuse: 0.4,
  breaker: 0.4,
  wire: 2,
  pin: 1,
  switch: 1.5,
  relay: 1,
  coil: 1.5,
  driver: 2,
  motor: 2,
  sensor3: 1.5,
};

/**
 * A part between two nodes with what was said and sensible figures for the rest, and the controls it needs. The nodes of
 * parts with more than two ends are named after the part: "A1:O", "B1:S".
 */
export function newPart(
  kind: Part['kind'],
  ref: string,
  near: string,
  far: string,
  given: Given,
  around: Surroundings,
): { part: Part; controls: Circuit['controls'] } {
  const { figures, label } = given;
  const { controls, volts } = around;
  const minutes = figures.accessMinutes ?? ACCESS_MINUTES[kind];
  const common = {
    ref,
    ...(label ? { label } : {}),
    ...(minutes === undefined ? {} : { accessMinutes: minutes }),
  };
  const two = { '1': near, '2': far };
  const ohms = (usual: number) => figures.ohms ?? (figures.watts ? round(volts ** 2 / figures.watts) : usual);
  const plain = (part: unknown) => ({ part: part as Part, controls });
  switch (kind) {
    case 'source': {
      const hz = figures.hz ?? (/line|mains/i.test(given.typed) ? 60 : 0);
      const own = figures.volts ?? (hz > 0 ? 120 : 12.6);
      return plain({
        ...common,
        label: label || (hz > 0 ? 'Line supply' : 'Battery'),
        kind,
        nodes: { '+': far, '-': near },
        volts: own,
        internalOhms: hz > 0 ? 0.2 : 0.02,
        ...(hz > 0 ? { hz } : {}),
      });
    }
    case 'fuse':
    case 'breaker':
      return plain({ ...common, kind, nodes: two, amps: figures.amps ?? 10 });
    case 'wire': {
      const { mm2, awg, lengthMetres } = figures;
      const sized = lengthMetres !== undefined && (mm2 !== undefined || awg !== undefined);
      return plain({
        ...common,
        kind,
        nodes: two,
        ...(mm2 === undefined ? {} : { mm2 }),
        ...(awg === undefined ? {} : { awg }),
        ...(lengthMetres === undefined ? {} : { lengthMetres }),
        ...(figures.ohms !== undefined || !sized ? { ohms: figures.ohms ?? 0.04 } : {}),
        ...(given.colour ? { colour: given.colour } : {}),
      });
    }
    case 'pin':
      return plain({ ...common, kind, nodes: two, connector: ref.split('.')[0] });
    case 'switch': {
      const worked = controlOf(controls, given, ref);
      return {
        part: {
          ...common,
          kind,
          nodes: two,
          closedWhen: worked.closedWhen,
          ...(figures.ohms === undefined ? {} : { ohms: figures.ohms }),
        },
        controls: worked.controls,
      };
    }
    case 'timer': {
      const worked = controlOf(controls, given, 'key');
      return {
        part: { ...common, kind, nodes: two, closedWhen: worked.closedWhen, seconds: figures.seconds ?? 3 },
        controls: worked.controls,
      };
    }
    case 'driver': {
      const worked = controlOf(controls, given, 'command');
      const nodes = given.lowSide
        ? { supply: around.plus, out: near, return: around.frame }
        : { supply: near, out: far, return: around.frame };
      return {
        part: {
          ...common,
          kind,
          nodes,
          onWhen: worked.closedWhen,
          side: given.lowSide ? 'low' : 'high',
          limitAmps: figures.limitAmps ?? figures.amps ?? 4,
        },
        controls: worked.controls,
      };
    }
    case 'relay': {
      const own = ohms(round(volts / 0.15));
      return plain({
        ...common,
        kind,
        nodes: { a1: near, a2: far },
        ohms: own,
        pickUpVolts: round(0.6 * volts),
        dropOutVolts: round(0.15 * volts),
      });
    }
    case 'coil': {
      const own = ohms(round(volts / 1.2));
      return plain({
        ...common,
        kind,
        nodes: two,
        ohms: own,
        pullInAmps: round((PULL_IN * volts) / own),
        holdAmps: round((HOLD * volts) / own),
      });
    }
    case 'resistor':
    case 'lamp':
    case 'heater':
    case 'motor':
      return plain({ ...common, kind, nodes: two, ohms: ohms(round(volts / 2)) });
    case 'diode':
      return plain({ ...common, kind, nodes: { anode: near, cathode: far } });
    case 'sensor3': {
      const worked = controlOf(controls, { ...given, when: given.when ?? null }, 'position');
      const [control] = Object.keys(worked.closedWhen);
      const positions =
        given.when || controls[control!] ? worked.controls[control!]! : ['in', 'middle', 'out'];
      return {
        part: {
          ...common,
          kind,
          nodes: { supply: near, signal: `${ref}:S`, return: far },
          ohms: figures.ohms ?? 4700,
          control: control!,
        },
        controls: { ...worked.controls, [control!]: positions },
      };
    }
    case 'transformer': {
      const secondary = figures.secondaryVolts ?? figures.volts ?? 24;
      const primary = figures.primaryVolts ?? volts;
      return plain({
        ...common,
        kind,
        nodes: { p1: near, p2: around.frame, s1: far, s2: `${ref}:s2` },
        ratio: round(primary / secondary),
        va: figures.va ?? 40,
      });
    }
    case 'airSupply': {
      const vacuum = /vacuum/i.test(given.typed);
      const kPa = figures.kPa ?? (vacuum ? 60 : 700);
      return plain({ ...common, kind, nodes: { out: far }, kPa: vacuum ? -Math.abs(kPa) : kPa });
    }
    case 'pump':
      return plain({ ...common, kind, nodes: { out: far }, kPa: figures.kPa ?? 18_000 });
    case 'regulator':
      return plain({ ...common, kind, nodes: { in: near, out: far }, kPa: figures.kPa ?? 600 });
    case 'filter':
    case 'check':
      return plain({ ...common, kind, nodes: { in: near, out: far } });
    case 'hose':
    case 'throttle':
      return plain({
        ...common,
        kind,
        nodes: two,
        ...(figures.restriction === undefined ? {} : { restriction: figures.restriction }),
      });
    case 'silencer':
    case 'plug':
      return plain({ ...common, kind, nodes: { in: near } });
    case 'vacuumActuator':
      return plain({ ...common, kind, nodes: { port: near }, pullKPa: figures.pullKPa ?? figures.kPa ?? 25 });
    case 'pressureSwitch': {
      const makeKPa = figures.makeKPa ?? figures.kPa ?? 400;
      return plain({
        ...common,
        kind,
        nodes: { ...two, port: `${ref}:P` },
        makeKPa,
        breakKPa: round(0.75 * makeKPa),
        contact: given.normallyClosed ? 'NC' : 'NO',
      });
    }
    case 'cylinder':
      return plain({ ...common, kind, nodes: { a: near, b: far } });
    case 'valve': {
      const ways = (given.ways ?? '3/2') as '2/2' | '3/2' | '5/2' | '5/3';
      const both = ways.startsWith('5');
      return plain({
        ...common,
        kind,
        ways,
        nodes: {
          '1': near,
          ...(both ? { '4': far, '2': `${ref}:2`, '3': `${ref}:3`, '5': `${ref}:5` } : { '2': far }),
          ...(ways === '3/2' ? { '3': `${ref}:3` } : {}),
        },
        coil: given.others[0] ?? '',
        ...(given.others[1] ? { coil2: given.others[1] } : {}),
      });
    }
  }
}

/** When a controller that sees this load would set a code for too little and too much current. */
export function codesFor(amps: number): Record<string, { belowAmps?: number; aboveAmps?: number }> {
  return { '5': { belowAmps: round(OPEN_LOAD * amps) }, '6': { aboveAmps: round(OVERLOAD * amps) } };
}
