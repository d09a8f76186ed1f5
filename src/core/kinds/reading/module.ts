import type { CircuitModel } from '../../circuit/model';
import type { Reading, ReadingKind, Test } from '../../circuit/schema';
import type { Edit } from '../../circuit/edits';
import type { Drive } from '../../circuit/deltas';
import type { SituationSolver } from '../../circuit/solveSituation';
import type { World } from '../../circuit/world';
import type { Prediction } from '../../diagnosis/prediction';
import type { Quantity } from '../../units/quantities';

export type TestOf<K extends ReadingKind> = Extract<Test, { kind: K }>;
export type Meter = Reading['meter'];

/** How a reading drives the circuit, and what it shows in a world solved so, with the faults that it was solved with. */
export type Reader = readonly [Drive, (world: World, edits: readonly Edit[]) => Prediction];

/** What all readings with a figure have. */
export interface FigureShown {
  is: 'figure';
  /** Quantity it is in; what is typed in a unit of another one is refused. */
  quantity: Quantity;
  /** Shown as over-range above this; `Infinity` where it never is. */
  over: number;
  /** The sign says little: a clamp is easily turned round. */
  unsigned: boolean;
  /** Standard deviation below which none is trusted, in its unit. */
  leastSigma: number;
  /** It rises and falls with the supply: readings of one circuit share how far that stands off. */
  withSupply: boolean;
  /** What the meter itself adds at a value, one standard deviation. This runs for every prediction. */
  meterSigma: (size: number, meter: Meter) => number;
  /** Density of a value that is a mistake: nothing known but the meter and how finely it shows. */
  mistakeDensity: (value: number | 'OL', supplyVolts: number) => number;
  /** Number of the step that a person can tell from its neighbours; `middle` is where zero stands. */
  step: (value: number, middle: number) => number;
}

/** What readings by eye, ear or hand have. */
export interface ChoiceShown {
  is: 'choice';
  /** As many answers as there usually are. */
  choices: number;
  /** The value that a key of the odds stands for. */
  valueOf: (key: string) => Reading['value'];
}

/** Everything that is known about one kind of reading. What it is called stands with the words. */
export interface ReadingModule<K extends ReadingKind> {
  /** The sources are off and the meter drives. */
  dead: boolean;
  /** What is read without a meter on a live run: a gauge, a hand, an eye on what moves. */
  mechanical: boolean;
  /** Preference that puts it first. */
  school: 'loadedVoltsFirst' | 'resistanceFirst' | null;
  /** Minutes to read, once one is there. */
  minutes: number;
  /** Chance that one is simply wrong: range, probe spot, misheard. */
  mistakeRate: number;
  shows: FigureShown | ChoiceShown;
  /** Names resolved, legality checked, ready for any world. Throws `InputError`. */
  bind: (model: CircuitModel, solver: SituationSolver, test: TestOf<K>, field: string) => Reader;
}

export function defineReading<K extends ReadingKind>() {
  return (module: ReadingModule<K>): ReadingModule<K> => module;
}
