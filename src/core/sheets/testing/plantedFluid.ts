import type { Random } from '../../random';
import type { Next } from '../sheet';
import type { Link, NeedsAnswer } from '../needs/needs';
import { between, decided, digits, head, pick, type Judge, type Planted } from './plant';

/** What is wrong at a valve: a link of its command, its coil, its air, its spool, the way of its pilot air, or what it moves. */
const AT_VALVE = [
  'bit',
  'card',
  'cable',
  'coil',
  'winding',
  'air',
  'midway',
  'stuck',
  'pilot',
  'beyond',
  'piston',
] as const;
const LINKS: readonly string[] = ['bit', 'card', 'cable', 'coil'];

/** The need that each of the others is the want of. */
const WANTED = {
  winding: 'coil',
  air: 'air',
  midway: 'valve',
  stuck: 'valve',
  pilot: 'valve',
  beyond: 'beyond',
  piston: 'beyond',
} as const;

/** A valve that does not work, read as its sheet asks: gauge, hand, ear, finger and volts. */
export function needs(random: Random): Planted {
  const cause = pick(random, AT_VALVE);
  const lost = LINKS.indexOf(cause);
  const electric = lost >= 0;
  const volts = (link: number) =>
    electric && link >= lost ? digits(between(random, 0, 1.2), 2) : digits(between(random, 22.8, 24.6), 1);
  const moved = electric || cause === 'winding' || cause === 'pilot';
  const truth: Record<string, unknown> = {
    supplyKpa: cause === 'air' ? digits(between(random, 60, 200), 0) : digits(between(random, 520, 610), 0),
    override: moved ? 'moves' : 'still',
    clicks: !electric && cause !== 'winding',
    bit: cause !== 'bit',
    cardVolts: volts(1),
    cableVolts: volts(2),
    coilVolts: volts(3),
    exhaustAlone: cause === 'midway' ? 'pushes' : 'none',
    exhaust:
      cause === 'midway' || cause === 'piston' || (cause === 'air' && random.next() < 0.5)
        ? 'pushes'
        : 'none',
    outlet: cause === 'stuck' ? 'none' : cause === 'midway' || cause === 'air' ? 'weak' : 'full',
    inlet: cause === 'air' ? 'weak' : 'full',
  };
  const wanted = electric ? 'electricity' : WANTED[cause as Exclude<typeof cause, Link>];
  return {
    document: { ...head('needs'), ratedVolts: 24, neededKpa: 250, commanded: 'still' },
    cause,
    read: (document, next) => {
      const field = askOf(next);
      return field === null || truth[field] === undefined ? null : { ...document, [field]: truth[field] };
    },
    judge: (({ missing, firstLoss }: NeedsAnswer) => {
      if (missing.length === 0 || (electric && missing.join() === wanted && firstLoss === null))
        return 'open';
      return missing.join() === wanted && (!electric || firstLoss === cause) ? 'right' : 'wrong';
    }) as Judge,
  };
}

function askOf(next: Next): string | null {
  return typeof next === 'object' && 'ask' in next ? next.ask : null;
}

/** Something shut in that leaks, or does not, while it warms or cools; the gauge shows steps. */
export function hold(random: Random): Planted {
  const of = pick(random, ['vacuum', 'air', 'standing'] as const);
  const leaks = random.next() < 0.5;
  const startKpa =
    of === 'vacuum' ? -digits(between(random, 50, 75), 0) : digits(between(random, 500, 1500), 0);
  const gaugeKpa = of === 'vacuum' ? 0.5 : 5;
  const minutes = of === 'standing' ? between(random, 120, 900) : between(random, 1, 10);
  const [startC, endC] = [between(random, 5, 30), between(random, 5, 30)].map((one) => digits(one, 0));
  const alone = ((startKpa + 101.325) * (endC! + 273.15)) / (startC! + 273.15) - 101.325;
  const lost =
    of === 'vacuum'
      ? (leaks ? between(random, 0.15, 0.6) : between(random, 0, 0.05)) *
        Math.abs(startKpa) *
        Math.min(minutes, 1.5)
      : leaks
        ? between(random, 6, 20) * gaugeKpa
        : 0;
  const seconds = 60 * (of === 'vacuum' ? Math.min(minutes, 1.5) : minutes);
  const end = alone - Math.sign(startKpa) * lost;
  return {
    document: {
      ...head('hold'),
      of,
      startKpa,
      endKpa: Math.round(end / gaugeKpa) * gaugeKpa,
      seconds: digits(seconds, 0),
      gaugeKpa,
      startC,
      endC,
      atmosphereKpa: 101.325,
    },
    cause: `${of} ${leaks ? 'leaks' : 'holds'}`,
    judge: (({ verdict }: { verdict: string | null }) =>
      decided(verdict, verdict === (leaks ? 'leaks' : 'holds'))) as Judge,
  };
}

/** A vacuum whose pump was shut off: tight, wet or leaking, read each minute with a gauge of two figures. */
export function evacuation(random: Random): Planted {
  const cause = pick(random, ['tight', 'moisture', 'leak'] as const);
  const start = between(random, 20, 45);
  const [level, time, rate] = [between(random, 400, 1800), between(random, 0.8, 2), between(random, 15, 200)];
  const rise = Array.from({ length: 13 }, (_one, minute) => {
    const pa =
      cause === 'tight'
        ? start + 0.8 * minute
        : cause === 'moisture'
          ? start + level * (1 - Math.exp(-minute / time))
          : start + rate * minute;
    return { seconds: 60 * minute, pa: digits(pa * (1 + 0.01 * random.normal()), 0) };
  });
  return {
    document: { ...head('evacuation'), rise, passPa: 67, forSeconds: 600 },
    cause,
    judge: (({ verdict }: { verdict: string | null }) => decided(verdict, verdict === cause)) as Judge,
  };
}
