import { FUSE_ROWS } from '@/core/circuit/fuseTime';
import type { EvacuationAnswer, EvacuationSheet } from '@/core/sheets/evacuation/evacuation';
import type { CoilAnswer, CoilSheet } from '@/core/sheets/coil/coil';
import type { PlannerAnswer } from '@/core/sheets/planner/planner';
import type { CutInAnswer, CutInSheet } from '@/core/sheets/cutIn/cutIn';
import { OVER_RANGE, type InsulationAnswer, type InsulationSheet } from '@/core/sheets/insulation/insulation';
import { pairKey, type SheetAnswer, type Shown } from '@/core/sheets/sheet';
import type { SheetName } from '@/core/sheets/sheets';
import type { TraceAnswer, TraceSheet } from '@/core/sheets/trace/trace';
import { seenPoints } from '@/core/trace/seenPoints';
import { significant } from '@/core/units/significant';
import { quantity } from '@/words/en/readings';

/** A line of a chart: what was read today, or what it is held against. */
export interface ChartLine {
  name: string;
  points: readonly (readonly [x: number, y: number])[];
  /** Today in pencil with its marks; before thin and dashed. */
  past?: boolean;
  /** Its name stands where it ends, also of one that is held against. */
  namedAtEnd?: true;
}

/** A chart of a sheet as data; how it is drawn is the chart's business. */
export interface SheetChart {
  label: string;
  lines: ChartLine[];
  /** Values far apart are drawn by their ratio. */
  logarithmic: boolean;
  /** The smallest that passes, or the largest; on its other side the ground is marked. */
  limit?: { value: number; words: string; passesBelow?: true };
  /** Stretches of x in which something was on. */
  on?: readonly (readonly [from: number, to: number])[];
  /** Time begins when it was switched on. */
  fromZero?: true;
  xTitle: string;
  /** The figure of a level line. */
  yWords: (value: number) => string;
}

/** Runs shown beside each other; more would be no picture. */
const MOST_RUNS = 3;

/** What a sheet draws besides its figures; null where it has nothing to draw. */
export function chartOf(name: SheetName, document: object, answer: SheetAnswer): SheetChart | null {
  switch (name) {
    case 'insulation':
      return insulationChart(document as InsulationSheet, answer as unknown as InsulationAnswer);
    case 'coil':
      return fuseChart(document as CoilSheet, answer as unknown as CoilAnswer);
    case 'trace':
      return traceChart(document as TraceSheet, answer as unknown as TraceAnswer);
    case 'cutIn':
      return cutInChart(document as CutInSheet, answer as unknown as CutInAnswer);
    case 'planner': {
      const { seen, cutIn, cutOut, run } = answer as unknown as PlannerAnswer;
      const hours = (seconds: number) => seconds / SECONDS_IN_HOUR;
      return controlChart(
        seen.map(({ seconds, value }) => ({ seconds: hours(seconds), value })),
        { cutIn, cutOut },
        run?.intervals.map(({ on, off }) => ({ on: hours(on), off: off === null ? null : hours(off) })) ??
          null,
        { name: 'at the sensor', xTitle: 'hours' },
      );
    }
    case 'evacuation':
      return riseChart(document as EvacuationSheet, answer as unknown as EvacuationAnswer);
    case 'survey':
      return sweepChart((document as { sweep?: { position: number; volts: number }[] }).sweep ?? []);
    default:
      return null;
  }
}

/** The rise of a vacuum over its time, and the mark that it has to stay below. */
function riseChart({ rise = [] }: EvacuationSheet, { passPa }: EvacuationAnswer): SheetChart | null {
  if (rise.length < 2) return null;
  const pa = (value: number) => `${significant(value, 3)} Pa`;
  return {
    label: 'Absolute pressure with the pump shut off',
    lines: [{ name: '', points: rise.map(({ seconds, pa: own }) => [seconds, own] as const) }],
    logarithmic: false,
    limit: { value: passPa, words: `stays below ${pa(passPa)}`, passesBelow: true },
    fromZero: true,
    xTitle: 's',
    yWords: pa,
  };
}

const SECONDS_IN_HOUR = 3600;

/** Times drawn of a fuse, seconds: what holds longer holds. */
const FUSE_SECONDS = [0.01, 1000] as const;

/** The bounds of a blade fuse's time over the current, and the coil's own current through them. */
function fuseChart({ fuseAmps }: CoilSheet, { ampsCold }: CoilAnswer): SheetChart | null {
  if (fuseAmps === undefined || ampsCold === null) return null;
  const [shortest, longest] = FUSE_SECONDS;
  const amps = (percent: number) => (percent / 100) * fuseAmps;
  const drawn = (seconds: number) => Math.min(Math.max(seconds, shortest), longest);
  // Between two rows the least is that of the higher, the most that of the lower.
  const earliest = FUSE_ROWS.flatMap(([percent, least], at): [number, number][] => [
    [amps(FUSE_ROWS[at - 1]?.[0] ?? 100), drawn(least)],
    [amps(percent), drawn(least)],
  ]);
  const latest = FUSE_ROWS.flatMap(([percent, , most], at): [number, number][] =>
    Number.isFinite(most)
      ? [
          [amps(percent), drawn(most)],
          [amps(FUSE_ROWS[at + 1]?.[0] ?? percent), drawn(most)],
        ]
      : [],
  );
  return {
    label: `When a ${quantity('amps', fuseAmps)} blade fuse opens, and the ${quantity('amps', ampsCold)} of this coil`,
    lines: [
      { name: 'opens at the latest', points: latest, past: true, namedAtEnd: true },
      { name: 'holds until here', points: earliest, past: true, namedAtEnd: true },
      {
        name: 'this coil',
        points: [
          [ampsCold, longest],
          [ampsCold, shortest],
        ],
      },
    ],
    logarithmic: true,
    fromZero: true,
    xTitle: 'amperes',
    yWords: (value) => `${value} s`,
  };
}

/** Ohms over the time that the volts stood on: a run rises while it charges, and falls where it warms or is wet. */
function insulationChart(
  { readings = [], before = [] }: InsulationSheet,
  answer: InsulationAnswer,
): SheetChart | null {
  const today = timedRuns(readings);
  if (today.size === 0) return null;
  const past = timedRuns(before);
  // What is bad or falls is looked at first.
  const rank = new Map(
    answer.cells.map(({ from, to, verdict }) => [
      pairKey(from, to),
      ['bad', 'watch', 'good'].indexOf(verdict ?? ''),
    ]),
  );
  const shown = [...today].sort(([a], [b]) => place(rank.get(a)) - place(rank.get(b))).slice(0, MOST_RUNS);
  const lines = shown.flatMap(([key, run]): ChartLine[] => {
    const earlier = past.get(key);
    return [
      { name: run.name, points: run.points },
      ...(earlier ? [{ name: `${run.name}, last proved`, points: earlier.points, past: true }] : []),
    ];
  });
  const { passOhms } = answer;
  return {
    label: `Insulation over time: ${lines.map(({ name }) => name).join('; ')}`,
    lines,
    logarithmic: true,
    ...(passOhms === null
      ? {}
      : { limit: { value: passOhms, words: `passes from ${quantity('ohms', passOhms)}` } }),
    fromZero: true,
    xTitle: 'seconds',
    yWords: (value) => quantity('ohms', value),
  };
}

const place = (rank: number | undefined) => (rank === undefined || rank < 0 ? 3 : rank);

interface Timed {
  from: string;
  to: string;
  ohms: Shown;
  seconds?: number | undefined;
}

/** Readings of a pair that were taken at two times or more. */
function timedRuns(readings: readonly Timed[]): Map<string, { name: string; points: [number, number][] }> {
  const runs = new Map<string, { name: string; points: [number, number][] }>();
  for (const { from, to, ohms, seconds } of readings) {
    if (seconds === undefined) continue;
    const key = pairKey(from, to);
    const run = runs.get(key) ?? { name: `${from} to ${to}`, points: [] };
    runs.set(key, run);
    // A logarithm has no place for nothing: a dead short is drawn at an ohm.
    run.points.push([seconds, ohms === 'OL' ? OVER_RANGE : Math.max(ohms, 1)]);
  }
  for (const [key, { points }] of runs) {
    points.sort(([a], [b]) => a - b);
    if (points.length < 2) runs.delete(key);
  }
  return runs;
}

function traceChart(
  { seconds = [], values = [], quantity: read }: TraceSheet,
  answer: TraceAnswer,
): SheetChart | null {
  if (seconds.length < 2 || seconds.length !== values.length) return null;
  const kind = read ?? 'amps';
  const words = (value: number) => quantity(kind, value);
  const points = seenPoints(seconds.map((at, k): [number, number] => [at, values[k]!]));
  const end = seconds.at(-1)!;
  return {
    label: `${kind === 'amps' ? 'Current' : 'Volts'} over ${end} s`,
    lines: [
      { name: 'read', points },
      ...(answer.settled === null
        ? []
        : [
            {
              name: `settled at ${words(answer.settled)}`,
              points: [
                [seconds[0]!, answer.settled],
                [end, answer.settled],
              ] as const,
              past: true,
            },
          ]),
    ],
    logarithmic: false,
    xTitle: 'seconds',
    yWords: words,
  };
}

function cutInChart(
  { curve = [], cutIn, cutOut }: CutInSheet,
  { intervals }: CutInAnswer,
): SheetChart | null {
  return controlChart(curve, { cutIn, cutOut }, intervals);
}

/** What a control's sensor sees with both thresholds, and when the output is on. */
function controlChart(
  curve: readonly { seconds: number; value: number }[],
  { cutIn, cutOut }: { cutIn?: number | null | undefined; cutOut?: number | null | undefined },
  intervals: CutInAnswer['intervals'],
  { name: own, xTitle }: { name: string; xTitle: string } = { name: 'read', xTitle: 'seconds' },
): SheetChart | null {
  if (curve.length < 2) return null;
  const [start, end] = [curve[0]!.seconds, curve.at(-1)!.seconds];
  const level = (name: string, value: number | null | undefined): ChartLine[] =>
    value === undefined || value === null
      ? []
      : [
          {
            name,
            points: [
              [start, value],
              [end, value],
            ],
            past: true,
          },
        ];
  return {
    label: 'The curve, and when it is on',
    lines: [
      {
        name: own,
        points: seenPoints(curve.map(({ seconds, value }): [number, number] => [seconds, value])),
      },
      ...level('cut-in', cutIn),
      ...level('cut-out', cutOut),
    ],
    logarithmic: false,
    on: (intervals ?? []).map(({ on, off }) => [on, off ?? end]),
    xTitle,
    yWords: String,
  };
}

function sweepChart(sweep: readonly { position: number; volts: number }[]): SheetChart | null {
  if (sweep.length < 2) return null;
  const points = [...sweep]
    .sort((a, b) => a.position - b.position)
    .map(({ position, volts }): [number, number] => [position, volts]);
  return {
    label: 'Signal over the sweep',
    lines: [{ name: 'signal', points: seenPoints(points) }],
    logarithmic: false,
    xTitle: 'position',
    yWords: (value) => quantity('volts', value),
  };
}
