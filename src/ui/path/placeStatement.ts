import { POINT_RADIUS, type PathLayout } from '@/core/path/layoutPath';
import type { Course } from './leadCourses';
import type { Tag } from './PathMarks';
import { PLACE_DROP } from './PathRun';
import { fittingLines } from './wrapLines';

/** About how wide a statement runs, and a character of it, px. */
const [STATEMENT, CHARACTER] = [420, 9];
/** From one line to the next, px. */
export const STATEMENT_LINE = 25;
/** No narrower than a few words. */
const LEAST_CHARACTERS = 18;
/** Right of the scale; under the names of a run; half of a load beside it, and of a lead, with their clearance; px. */
const [FROM_EDGE, UNDER_NAMES, FALL_HALF, LEAD_HALF] = [70, 86, 22, 14];
/** A load's own words stand beside it, px. */
const FALL_WORDS = 160;
/** On top, where no other lane runs there: its first line, and how far over the run what is pinned reaches. */
const [TOP, PINNED] = [26, 73];
/** Lines end so far over the lower run, and reach so far under themselves. */
const [OVER_FLOOR, DESCENT] = [10, 6];

/** Where a statement stands: left end and first line, px. */
export interface StatementPlace {
  x: number;
  y: number;
  lines: string[];
}

/**
 * A place for what is said of the path, in what is seen of it: under the level run, between the leads that cross there; right of a short
 * path; or on top, where none of these is wide enough for all of the first sentence.
 */
export function placeStatement(
  layout: PathLayout,
  sentences: readonly string[],
  tag: Tag,
  courses: readonly Course[],
): StatementPlace {
  const { width, supplyY, floorY, fall, runs, branches, points } = layout;
  const rightOf = points.at(-1)!.x + 96;
  const left = tag.scrolled + FROM_EDGE;
  const lowestAt = (x: number, end: number) =>
    Math.max(
      supplyY + UNDER_NAMES,
      // A run that has come down, such as air behind its regulator, pushes the statement under its names.
      ...runs
        .filter(({ x1, x2 }) => x2 > x && x1 < Math.min(x + STATEMENT, end) && x2 <= fall.x)
        .map(({ y1, y2 }) => Math.max(y1, y2) + PLACE_DROP + 27),
    );
  const within = (x: number, end: number, y: number, room: number): StatementPlace => {
    const most = Math.max(Math.floor((end - x) / CHARACTER), LEAST_CHARACTERS);
    return { x, y, lines: fittingLines(sentences, most, room) };
  };
  const roomUnder = (y: number) =>
    Math.max(2, Math.min(3, Math.floor((floorY - OVER_FLOOR - y) / STATEMENT_LINE) + 1));
  if (fall.x < 540 && width - rightOf > 400) {
    const y = supplyY + 40;
    return within(rightOf, width, y, roomUnder(y));
  }
  const before = fall.x - FALL_HALF;
  // Past the load only where nothing before it is seen of a long path: readings stand there too.
  const [from, to] =
    before > left ? [left, Math.min(before, tag.right)] : [Math.max(left, fall.x + FALL_WORDS), tag.right];
  const crossing = courses.flatMap((course) => crossed(course, floorY - OVER_FLOOR));
  const gaps = free(from, to, crossing).map(([x, end]) => {
    const y = lowestAt(x, end);
    return { ...within(x, end, y, roomUnder(y)), room: roomUnder(y), wide: end - x };
  });
  const said = ({ lines }: StatementPlace) => lines.join(' ').length;
  const fitting = gaps.filter(
    ({ lines, room, wide }) => lines.length <= room && wide >= LEAST_CHARACTERS * CHARACTER,
  );
  // Where most is said; of two that say as much the first.
  if (fitting.length > 0) return fitting.reduce((best, one) => (said(one) > said(best) ? one : best));
  const roomOver = Math.floor((supplyY - PINNED - DESCENT - TOP) / STATEMENT_LINE) + 1;
  if (branches.length === 0 && roomOver > 0) {
    const top = within(left, tag.right, TOP, roomOver);
    if (top.lines.length <= roomOver) return top;
  }
  return gaps.reduce((best, one) => (one.wide > best.wide ? one : best));
}

/** From where to where a lead hangs in the way of what stands under the run; one from a point lower than that does not. */
function crossed({ box, x }: Course, lowest: number): [number, number][] {
  if (!box || box.y + POINT_RADIUS > lowest) return [];
  return [[Math.min(box.x, x) - LEAD_HALF, Math.max(box.x, x) + LEAD_HALF]];
}

/** What is left of a stretch between what lies in its way; all of it where that is nothing. */
function free(from: number, to: number, taken: readonly [number, number][]): [number, number][] {
  const gaps: [number, number][] = [];
  let at = from;
  for (const [x1, x2] of [...taken].sort((a, b) => a[0] - b[0])) {
    if (x1 > at && at < to) gaps.push([at, Math.min(x1, to)]);
    at = Math.max(at, x2);
  }
  if (at < to) gaps.push([at, to]);
  return gaps.length > 0 ? gaps : [[from, to]];
}
