import type { ReadingKind } from '../../circuit/schema';
import { amps } from './amps';
import { bit } from './bit';
import { changes } from './changes';
import { click } from './click';
import { code } from './code';
import { diode } from './diode';
import { flow } from './flow';
import { functionKind } from './function';
import { fuse } from './fuse';
import { gauge } from './gauge';
import { hertz } from './hertz';
import { hold } from './hold';
import { insulation } from './insulation';
import type { FigureShown, ReadingModule } from './module';
import { moves } from './moves';
import { ohms } from './ohms';
import { pressure } from './pressure';
import { trace } from './trace';
import { volts } from './volts';

/** Every kind of reading with everything that is known about it. A kind that is missing here is a type error. */
export const READING_KINDS = {
  volts,
  ohms,
  diode,
  amps,
  insulation,
  fuse,
  click,
  bit,
  function: functionKind,
  code,
  pressure,
  flow,
  moves,
  gauge,
  hertz,
  hold,
  changes,
  trace,
} as const satisfies { [K in ReadingKind]: ReadingModule<K> };

/** What is known about a kind of reading. */
export function readingKind(kind: ReadingKind): ReadingModule<ReadingKind> {
  // A test and the module of its kind belong together; no type says so of a union.
  return READING_KINDS[kind] as unknown as ReadingModule<ReadingKind>;
}

/** How a kind shows figures; throws for one that shows none. */
export function figureOf(kind: ReadingKind): FigureShown {
  const { shows } = READING_KINDS[kind];
  if (shows.is !== 'figure') throw new TypeError(`${kind} shows no figure`);
  return shows;
}
