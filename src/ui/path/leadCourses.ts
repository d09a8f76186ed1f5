import { POINT_RADIUS, type PathLayout, type PointBox } from '@/core/path/layoutPath';
import type { Tag } from './PathMarks';

/** The marks of both leads stand at least this far apart, px. */
const EYELETS_APART = 56;

/** A lead on its way from its point to its eyelet on the tag; no point where that is not on the lane shown. */
export interface Course {
  box: PointBox | undefined;
  /** Of its eyelet. */
  x: number;
  y: number;
}

/** Where the red and the black lead run: eyelets slide along the edge of the tag to stay under their points. */
export function leadCourses(
  leads: { plus: number; minus: number },
  tag: Tag,
  layout: PathLayout,
): [plus: Course, minus: Course] {
  const find = (node: number) => layout.points.find((box) => box.node === node);
  const [plus, minus] = [find(leads.plus), find(leads.minus)];
  const y = layout.height + tag.drop;
  const clamp = (x: number, low: number, high: number) => Math.min(Math.max(x, low), high);
  const wanted = [plus?.x ?? tag.left + 120, minus?.x ?? tag.right - 120] as const;
  const [low, high] = [tag.left + 30, tag.right - 40];
  let [p, m] = [clamp(wanted[0], low, high), clamp(wanted[1], low, high)];
  if (Math.abs(p - m) < EYELETS_APART) {
    const left = Math.max(low, Math.max(p, m) - EYELETS_APART);
    const right = left + EYELETS_APART;
    [p, m] = wanted[0] <= wanted[1] ? [left, right] : [right, left];
  }
  return [
    { box: plus, x: p, y },
    { box: minus, x: m, y },
  ];
}

/** A lead as it hangs. */
export function courseLine({ box, x, y }: Course): string {
  if (!box) return `M${x} ${y - 30}V${y}`;
  const middle = (box.y + y) / 2;
  return `M${box.x} ${box.y + POINT_RADIUS + 4}C${box.x + 8} ${middle} ${x - 6} ${middle} ${x} ${y}`;
}
