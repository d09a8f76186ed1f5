import type { Random } from '../../random';
import { conductorOhms } from '../../circuit/wireGauge';
import { parseSheet } from '../parseSheet';
import type { SheetAnswer } from '../sheet';
import { computeSheet, type SheetName } from '../sheets';
import { connector } from './plantedLeads';
import { between, decided, digits, head, metered, pick, type Judge, type Planted } from './plant';
import { evacuation, hold, needs } from './plantedFluid';

/** More readings than any of these sheets has cells. */
const MOST_ASKED = 60;

/** Computes what was planted, and reads what the sheet asks for as long as it has not decided. */
export function playSheet({ document, judge, read }: Planted): {
  outcome: 'right' | 'wrong' | 'open';
  asked: number;
  document: Record<string, unknown>;
  answer: SheetAnswer;
} {
  let now = document;
  for (let asked = 0; ; asked++) {
    const answer = computeSheet(parseSheet(JSON.parse(JSON.stringify(now))));
    const outcome = judge(answer as never);
    const more = outcome === 'open' && answer.next !== null && asked < MOST_ASKED && read?.(now, answer.next);
    if (!more) return { outcome, asked, document: now, answer };
    now = more;
  }
}

const shuffled = <T>(random: Random, list: readonly T[]): T[] =>
  list
    .map((one) => [random.next(), one] as const)
    .sort((a, b) => a[0] - b[0])
    .map(([, one]) => one);

function coil(random: Random): Planted {
  const ohms20 = between(random, 4, 80);
  const cause = pick(random, ['good', 'low', 'high', 'open'] as const);
  const factor = {
    good: between(random, 0.96, 1.04),
    low: between(random, 0.5, 0.78),
    high: between(random, 1.25, 2),
    open: 1,
  }[cause];
  const celsius = between(random, 5, 45);
  const leads = digits(between(random, 0.1, 0.4), 1);
  const shown = ohms20 * factor * (1 + 0.00393 * (celsius - 20)) + leads;
  const against = pick(random, ['maker', 'twins', 'fleet'] as const);
  const known =
    against === 'maker'
      ? { maker: { ohms: digits(ohms20, 1), tolerance: 0.08 } }
      : against === 'twins'
        ? { twins: [1, 2].map(() => digits(ohms20 * (1 + 0.015 * random.normal()), 1)) }
        : { fleet: Array.from({ length: 9 }, () => digits(ohms20 * (1 + 0.02 * random.normal()), 1)) };
  return {
    document: {
      ...head('coil'),
      ohms: cause === 'open' ? ['OL'] : Array.from({ length: 3 }, () => metered(random, shown)),
      leadOhms: leads,
      temperatureC: digits(celsius, 0),
      supplyVolts: 24,
      ...known,
    },
    cause,
    judge: (({ verdict }: { verdict: string }) => decided(verdict, verdict === cause)) as Judge,
  };
}

function windings(random: Random): Planted {
  const wires = shuffled(random, ['red', 'white', 'black']);
  const [common, pull, hold] = wires as [string, string, string];
  const pullOhms = between(random, 0.25, 1.2);
  const holdOhms = pullOhms * between(random, 12, 45);
  const cause = pick(random, ['good', 'good', 'open', 'short'] as const);
  const broken = pick(random, wires);
  const leads = 0.2;
  const ohms = (a: string, b: string): number | 'OL' => {
    if (cause === 'open' && (a === broken || b === broken)) return 'OL';
    const own = cause === 'short' ? 0.01 : pullOhms;
    const value = [a, b].includes(common) ? ([a, b].includes(pull) ? own : holdOhms) : own + holdOhms;
    return digits((value + leads) * (1 + 0.003 * random.normal()), 2);
  };
  return {
    document: {
      ...head('windings'),
      wires: [...wires].sort(),
      leadOhms: leads,
      ohms: [
        [common, pull],
        [common, hold],
        [pull, hold],
      ].map(([from, to]) => ({ from, to, value: ohms(from!, to!) })),
    },
    cause,
    judge: ((answer: { verdict: string; common: string | null; pullIn: string | null }) => {
      const named = cause !== 'good' || (answer.common === common && answer.pullIn === pull);
      return decided(answer.verdict, answer.verdict === cause && named);
    }) as Judge,
  };
}

function insulation(random: Random): Planted {
  const conductors = ['1', '2', '3', '4'];
  const places = [...conductors, 'PE'];
  const pairs = places.flatMap((a, i) => places.slice(i + 1).map((b) => [a, b] as const));
  const bad = pick(random, [null, ...pairs]);
  const line = random.next() < 0.5;
  return {
    document: {
      ...head('insulation'),
      conductors,
      frame: 'PE',
      circuitVolts: line ? 230 : 24,
      testVolts: line ? 500 : 250,
      readings: pairs.map(([from, to]) => ({
        from,
        to,
        ohms:
          bad && from === bad[0] && to === bad[1]
            ? digits(between(random, 1e3, 3e5), 0)
            : random.next() < 0.5
              ? 'OL'
              : digits(between(random, 3e7, 2e9), 0),
        seconds: 60,
        temperatureC: 20,
      })),
    },
    cause: bad ? bad.join(' ') : 'none',
    judge: (({ bad: found }: { bad: [string, string][] }) =>
      found.length === (bad ? 1 : 0) && (!bad || found[0]!.join() === bad.join())
        ? 'right'
        : 'wrong') as Judge,
  };
}

function contacts(random: Random): Planted {
  const rated = pick(random, [100, 200, 400]);
  const names = ['K1', 'K2', 'K3', 'K4'];
  const bad = pick(random, names);
  const cause = pick(random, ['bad', 'open', 'welded', 'coil', 'mechanical', 'worn'] as const);
  const amps = digits(rated * between(random, 0.4, 0.9), 0);
  const drop = (volts: number) => ({
    dropVolts: digits((volts * amps) / rated, 3),
    atAmps: amps,
    ratedAmps: rated,
  });
  const sound = () => ({
    clicks: true,
    coilOhms: metered(random, 5.2),
    openOhms: 'OL',
    closedOhms: 0.1,
    ...drop(between(random, 0.02, 0.08)),
  });
  const ill = () =>
    ({
      bad: { ...sound(), ...drop(between(random, 0.26, 0.8)) },
      worn: { ...sound(), ...drop(between(random, 0.125, 0.17)) },
      open: { ...sound(), closedOhms: 'OL', dropVolts: undefined, atAmps: undefined },
      welded: { ...sound(), openOhms: 0.1 },
      coil: { ...sound(), clicks: false, coilOhms: 'OL', closedOhms: undefined, dropVolts: undefined },
      mechanical: { ...sound(), clicks: false, closedOhms: undefined, dropVolts: undefined },
    })[cause];
  return {
    document: {
      ...head('contacts'),
      leadOhms: 0.1,
      school: 'millivolts',
      contactors: names.map((name) => ({ name, ...(name === bad ? ill() : sound()) })),
    },
    cause: `${bad} ${cause}`,
    judge: (({ verdicts }: { verdicts: Record<string, string | null> }) => {
      if (names.some((name) => name !== bad && verdicts[name] !== 'good')) return 'wrong';
      return decided(verdicts[bad], verdicts[bad] === cause);
    }) as Judge,
  };
}

function terminals(random: Random): Planted {
  const size = pick(random, [5, 8] as const);
  const names = shuffled(
    random,
    Array.from({ length: size }, (_one, k) => String(k + 1)),
  );
  const coil = names.slice(0, 2);
  const poles = size === 5 ? [names.slice(2)] : [names.slice(2, 5), names.slice(5)];
  const ohms = between(random, 40, 900);
  const value = (a: string, b: string, state: string): number | 'OL' => {
    const is = (x: string, y: string) => (a === x && b === y) || (a === y && b === x);
    if (is(coil[0]!, coil[1]!)) return metered(random, ohms);
    for (const [com, no, nc] of poles)
      if (is(com!, state === 'operated' ? no! : nc!)) return digits(between(random, 0, 0.5), 1);
    return 'OL';
  };
  const sorted = [...names].sort();
  const all = sorted.flatMap((from, i) =>
    sorted
      .slice(i + 1)
      .flatMap((to) =>
        ['rest', 'operated'].map((state) => ({ from, to, state, value: value(from, to, state) })),
      ),
  );
  const kept = random.next() < 0.7 ? all : shuffled(random, all).slice(0, Math.ceil(all.length * 0.6));
  return {
    document: { ...head('terminals'), terminals: sorted, readings: kept },
    cause: `${size} terminals`,
    read: (document, next) => {
      if (typeof next === 'string' || !('from' in next)) return null;
      const { from, to, state = 'rest' } = next;
      const readings = document['readings'] as object[];
      return { ...document, readings: [...readings, { from, to, state, value: value(from, to, state) }] };
    },
    judge: ((answer: {
      sure: boolean;
      coil: string[] | null;
      poles: { com: string; no: string; nc: string }[];
    }) => {
      const same = (a: readonly string[] | null, b: readonly string[]) =>
        a !== null && [...a].sort().join() === [...b].sort().join();
      const right =
        same(answer.coil, coil) &&
        poles.every(([com, no, nc]) =>
          answer.poles.some((one) => one.com === com && one.no === no && one.nc === nc),
        );
      if (!answer.sure) {
        const lies =
          (answer.coil !== null && !same(answer.coil, coil)) ||
          answer.poles.some((one) => one.com !== null && !poles.some(([com]) => com === one.com));
        return lies ? 'wrong' : 'open';
      }
      return right ? 'right' : 'wrong';
    }) as Judge,
  };
}

function outputs(random: Random): Planted {
  const n = pick(random, [3, 4, 6, 8]);
  const names = Array.from({ length: n }, (_one, k) => String(k + 1));
  const half = n >= 4 ? [names.slice(0, n / 2), names.slice(n / 2)] : undefined;
  const supply = 24;
  const causes = [
    'healthy',
    'deadSource',
    'deadMaster',
    'deadOutput',
    'crossed',
    'leaking',
    'ghost',
    'openSensorLoop',
    ...(half ? ['deadModule'] : []),
  ];
  const cause = pick(random, causes);
  const [a, b] = shuffled(random, names) as [string, string];
  const block = half ? pick(random, half) : [];
  const loads = cause === 'ghost' || cause === 'leaking' ? 'off' : 'on';
  const level = between(random, 0.25, 0.7);
  const volts = (commanded: string, measured: string, low = false): number => {
    const sound = measured === commanded || measured === 'M' ? 1 : 0;
    const share = (() => {
      switch (cause) {
        case 'deadSource':
        case 'openSensorLoop':
          return 0;
        case 'deadMaster':
          return measured === 'M' ? 0 : sound;
        case 'deadOutput':
          return measured === a ? 0 : sound;
        case 'deadModule':
          return block.includes(measured) ? 0 : sound;
        case 'crossed': {
          const other = commanded === a ? b : commanded === b ? a : commanded;
          return measured === 'M' ? 1 : measured === other ? 1 : 0;
        }
        case 'leaking':
        case 'ghost':
          if (measured !== a || commanded === a) return sound;
          return cause === 'ghost' && low ? 0.005 : level;
        default:
          return sound;
      }
    })();
    return digits(Math.abs(share * supply * (1 + 0.01 * random.normal()) + 0.03 * random.normal()), 2);
  };
  const table = (low: boolean) =>
    Object.fromEntries(
      names.map((commanded) => [
        commanded,
        Object.fromEntries([...names, 'M'].map((measured) => [measured, volts(commanded, measured, low)])),
      ]),
    );
  const other = names.find((name) => name !== a)!;
  return {
    document: {
      ...head('outputs'),
      outputs: names,
      master: 'M',
      ...(half ? { modules: half } : {}),
      supplyVolts: cause === 'deadSource' ? 0.2 : supply,
      loads,
      sensorLoop: cause === 'openSensorLoop' ? 'open' : 'closed',
      matrix: table(false),
      ...(loads === 'off' ? { lowImpedance: { [other]: { [a]: volts(other, a, true) } } } : {}),
    },
    cause,
    judge: ((answer: { cause: string | null; of: string[] }) => {
      const of = { deadOutput: [a], leaking: [a], ghost: [a], crossed: [a, b], deadModule: block }[cause];
      const right = answer.cause === cause && (!of || [...of].sort().join() === [...answer.of].sort().join());
      return decided(answer.cause, right);
    }) as Judge,
  };
}

function survey(random: Random): Planted {
  const supply = pick(random, [12.6, 25.2]);
  const roles = ['supply', 'return', 'reference', 'signal', 'driverLow', 'driverHigh'] as const;
  const pins = roles.map((_one, k) => String(k + 1));
  const order = shuffled(random, roles);
  const noise = (value: number) => digits(Math.abs(value + 0.02 * random.normal()), 2);
  const level = (role: string, kind: string): number =>
    ({
      supply: supply,
      return: kind === 'unplugged' ? 0 : 0.03,
      reference: 5,
      signal: kind === 'unplugged' ? 5 : between(random, 0.8, 4.2),
      driverLow: kind === 'unplugged' ? 0 : kind === 'plugged' ? supply : 0.3,
      driverHigh: kind === 'commanded' ? supply - 0.2 : 0,
    })[role]!;
  const table = (kind: string) =>
    Object.fromEntries(pins.map((pin, k) => [pin, noise(level(order[k]!, kind))]));
  const frame = {
    supply: 400,
    return: 0.2,
    reference: 5200,
    signal: 9800,
    driverLow: 'OL',
    driverHigh: 30_000,
  } as const;
  return {
    document: {
      ...head('survey'),
      pins,
      supplyVolts: supply,
      referenceVolts: 5,
      unplugged: table('unplugged'),
      plugged: table('plugged'),
      commanded: table('commanded'),
      ohmsToFrame: Object.fromEntries(pins.map((pin, k) => [pin, frame[order[k]!]])),
    },
    cause: 'roles',
    judge: (({ roles: found }: { roles: Record<string, { role: string | null }> }) => {
      const named = pins.map((pin, k) => [found[pin]!.role, order[k]!] as const);
      if (named.some(([role, truth]) => role !== null && role !== truth)) return 'wrong';
      return named.every(([role]) => role !== null) ? 'right' : 'open';
    }) as Judge,
  };
}

function diode(random: Random): Planted {
  const cause = pick(random, ['good', 'shorted', 'open', 'reversed', 'hidden'] as const);
  const forward = digits(between(random, 0.5, 0.7), 3);
  const over = pick(random, ['OL', '1'] as const);
  const none = over === 'OL' ? 'OL' : 1;
  const coilOhms = digits(between(random, 10, 80), 1);
  const volts = {
    good: [forward, none],
    shorted: [0.001, 0.002],
    open: [none, none],
    reversed: [none, forward],
    hidden: [digits(coilOhms / 1000, 3), digits(coilOhms / 1000, 3)],
  }[cause];
  return {
    document: {
      ...head('diode'),
      forward: volts[0],
      reverse: volts[1],
      overShows: over,
      ...(cause === 'hidden' ? { coilOhms } : {}),
    },
    cause,
    judge: (({ verdict }: { verdict: string | null }) => decided(verdict, verdict === cause)) as Judge,
  };
}

function interlocks(random: Random): Planted {
  const n = 3 + Math.floor(random.next() * 6);
  const names = Array.from({ length: n }, (_one, k) => `S${k + 1}`);
  const bad = Math.floor(random.next() * n);
  const resistive = random.next() < 0.3;
  const supply = pick(random, [12.6, 25.2]);
  const rest = resistive ? between(random, 0.3, 0.75) : 0;
  const types = names.map(() => pick(random, ['NO', 'NC'] as const));
  return {
    document: {
      ...head('interlocks'),
      switches: names.map((name, k) => ({ name, type: types[k], pressed: types[k] === 'NO' })),
      supplyVolts: supply,
      volts: [
        { after: 'supply', value: supply },
        ...names.map((after, k) => ({
          after,
          value: digits(
            k < bad ? supply - 0.02 * (k + 1) : Math.abs(supply * rest + 0.01 * random.normal()),
            2,
          ),
        })),
      ],
    },
    cause: `${names[bad]} ${resistive ? 'resistive' : 'open'}`,
    judge: ((answer: { firstLoss: { name: string } | null; suspect: string[] }) => {
      if (answer.firstLoss === null) return 'open';
      return answer.firstLoss.name === names[bad] && answer.suspect.join() === names[bad] ? 'right' : 'wrong';
    }) as Judge,
  };
}

function drop(random: Random): Planted {
  const amps = pick(random, [10, 40, 120]);
  const mm2 = amps === 10 ? 2.5 : amps === 40 ? 10 : 35;
  const names = ['feed', 'switch run', 'load run', 'return'];
  const bad = pick(random, names);
  const celsius = digits(between(random, 0, 40), 0);
  const segments = names.map((name) => {
    const length = digits(between(random, 1, 6), 1);
    const copper = (amps * length * (1 + 0.00393 * (celsius - 20))) / (58 * mm2);
    const extra = name === bad ? between(random, 0.4, 2) : 0.015;
    return {
      name,
      lengthMetres: length,
      mm2,
      measuredVolts: digits(copper * between(random, 1, 1.08) + extra, 3),
    };
  });
  return {
    document: { ...head('drop'), amps, temperatureC: celsius, segments },
    cause: bad,
    judge: (({
      worst,
      segments: found,
    }: {
      worst: string | null;
      segments: { name: string; verdict: string | null }[];
    }) =>
      decided(
        worst,
        worst === bad && found.every(({ name, verdict }) => verdict === (name === bad ? 'high' : 'good')),
      )) as Judge,
  };
}

function functions(random: Random): Planted {
  const parts = Array.from({ length: 8 }, (_one, k) => `P${k + 1}`);
  const bad = pick(random, parts);
  const list = Array.from({ length: 9 }, (_one, k) => ({
    name: `F${k + 1}`,
    parts: shuffled(random, parts).slice(0, 3),
  }));
  return {
    document: {
      ...head('functions'),
      functions: list.map((one) => ({ ...one, state: one.parts.includes(bad) ? 'dead' : 'works' })),
    },
    cause: bad,
    judge: (({ suspect, cleared }: { suspect: { part: string }[]; cleared: string[] }) => {
      if (cleared.includes(bad)) return 'wrong';
      if (suspect.length === 0) return 'open';
      return suspect.some(({ part }) => part === bad) ? 'right' : 'wrong';
    }) as Judge,
  };
}

function actuation(random: Random): Planted {
  const cause = pick(random, ['good', 'sticky', 'intermittent', 'drifted', 'dead'] as const);
  const rated = between(random, 200, 900);
  const normallyOpen = random.next() < 0.5;
  const rising = cause === 'drifted' ? rated * pick(random, [0.75, 1.3]) : rated;
  const cycles = Array.from({ length: 6 }, (_one, k) => {
    const changed = cause === 'dead' ? false : cause === 'intermittent' ? k % 3 !== 1 : true;
    const scatter = cause === 'sticky' ? 0.12 * (k % 2 ? 1 : -1) : 0.01 * random.normal();
    const [up, down] = [rising * (1 + scatter), rising * 0.8 * (1 + scatter / 2)].map((one) =>
      digits(one, 0),
    );
    return changed
      ? { makeKpa: normallyOpen ? up : down, breakKpa: normallyOpen ? down : up, changed }
      : { changed };
  });
  return {
    document: {
      ...head('actuation'),
      atRest: normallyOpen ? 'open' : 'closed',
      ratedKpa: digits(rated, 0),
      cycles,
    },
    cause,
    judge: (({ verdict }: { verdict: string | null }) => decided(verdict, verdict === cause)) as Judge,
  };
}

function trace(random: Random): Planted {
  const cause = pick(random, ['ran', 'locked', 'moved', 'stuck', 'pulsed'] as const);
  const noise = (value: number, share = 0.01) => value * (1 + share * random.normal());
  const at = (n: number, step: number) => Array.from({ length: n }, (_one, k) => k * step);
  if (cause === 'ran' || cause === 'locked') {
    const seconds = at(300, 0.01);
    const [peak, end, tau] = [between(random, 60, 120), between(random, 12, 30), between(random, 0.1, 0.4)];
    const values = seconds.map((t) =>
      noise(cause === 'ran' ? end + (peak - end) * Math.exp(-t / tau) : peak * (1 - 0.1 * Math.min(t, 1))),
    );
    return {
      document: { ...head('trace'), kind: 'inrush', quantity: 'amps', seconds, values },
      cause,
      judge: (({ verdict }: { verdict: string | null }) => decided(verdict, verdict === cause)) as Judge,
    };
  }
  if (cause === 'pulsed') {
    const [hz, duty, high] = [between(random, 60, 300), between(random, 0.15, 0.85), between(random, 12, 26)];
    const seconds = at(1500, 1 / (hz * 40));
    const values = seconds.map((t) => ((t * hz) % 1 < duty ? high : 0.1) + 0.03 * random.normal());
    return {
      document: { ...head('trace'), kind: 'pwm', quantity: 'volts', seconds, values },
      cause,
      judge: ((answer: { hz: number | null; duty: number | null }) =>
        decided(
          answer.hz,
          answer.hz !== null &&
            answer.duty !== null &&
            Math.abs(answer.hz / hz - 1) < 0.02 &&
            Math.abs(answer.duty - duty) < 0.04,
        )) as Judge,
    };
  }
  const [end, tau] = [between(random, 0.6, 2), between(random, 0.01, 0.03)];
  const seconds = at(300, tau / 40);
  const dipAt = tau * between(random, 0.7, 1.2);
  const values = seconds.map((t) => {
    const rise = end * (1 - Math.exp(-t / tau));
    const dip = cause === 'moved' ? 0.3 * end * Math.exp(-(((t - dipAt) / (tau * 0.12)) ** 2)) : 0;
    return noise(rise - dip, 0.004);
  });
  return {
    document: { ...head('trace'), kind: 'dip', quantity: 'amps', seconds, values },
    cause,
    judge: (({ moved }: { moved: boolean | null }) => decided(moved, moved === (cause === 'moved'))) as Judge,
  };
}

/** A wire that touches the frame somewhere, read from both ends with a meter of hundredths; the place within a tenth of it. */
function wire(random: Random): Planted {
  const lengthMetres = digits(between(random, 20, 120), 0);
  const mm2 = pick(random, [0.5, 0.75, 1] as const);
  const at = between(random, 0.05, 0.95) * lengthMetres;
  const touch = pick(random, [0, 0.3, 2] as const);
  const leadOhms = 0.2;
  const end = (metres: number) => digits(conductorOhms(metres, mm2) + touch + leadOhms, 2);
  return {
    document: {
      ...head('wire'),
      lengthMetres,
      mm2,
      temperatureC: 20,
      leadOhms,
      nearOhms: end(at),
      farOhms: end(lengthMetres - at),
    },
    cause: `touches at ${at.toFixed(1)} of ${lengthMetres} m with ${touch} ohm`,
    judge: (({ fault }: { fault: { metres: number; least: number; most: number } | null }) =>
      fault === null ? 'open' : fault.least <= at && at <= fault.most ? 'right' : 'wrong') as Judge,
  };
}

/** Sheets with something planted, by name; what has one answer only by its formula is tested by that. */
export const PLANTED: Readonly<Partial<Record<SheetName, (random: Random) => Planted>>> = {
  coil,
  windings,
  insulation,
  contacts,
  terminals,
  outputs,
  survey,
  diode,
  interlocks,
  drop,
  functions,
  actuation,
  trace,
  wire,
  needs,
  hold,
  evacuation,
  connector,
};
