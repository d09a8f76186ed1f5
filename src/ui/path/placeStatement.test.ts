import { CircuitModel } from '@/core/circuit/model';
import { findLanes } from '@/core/path/lanes';
import { layoutPath, type PathLayout } from '@/core/path/layoutPath';
import { demoCircuit } from '@/testing/demoCircuits';
import { leadCourses } from './leadCourses';
import { placeStatement, type StatementPlace } from './placeStatement';

const SENTENCES = [
  'The doubt is on S3R, X31.2, W15, X8.1 and 4 more.',
  '24.6 V, 1 to 12, key on.',
  '7 parts spared.',
];
/** A character is about so wide, px. */
const CHARACTER = 9;
const EDGE = 24;

function laidOut(name: string, id: string, width: number): PathLayout {
  const model = new CircuitModel(demoCircuit(name));
  const lanes = findLanes(model);
  const lane = lanes.lanes.find((one) => one.id === id)!;
  const standings = model.compiled.parts.map(() => ({ state: 'doubt' as const, share: 0.05, turns: 1 }));
  return layoutPath(model, lanes, lane, { width, standings, asked: [], low: false });
}
const tagAt = (width: number, scrolled = 0) => ({
  left: EDGE + scrolled,
  right: width - EDGE + scrolled,
  drop: 20,
  scrolled,
});
/** Whether a lead that hangs down at x goes through what is said. */
const strikes = ({ x, lines }: StatementPlace, lead: number) =>
  lead > x && lead < x + CHARACTER * Math.max(...lines.map(({ length }) => length));

describe('a statement under the path', () => {
  it.each([768, 1024, 1280])('is struck through by neither lead, on a screen of %d px', (width) => {
    const layout = laidOut('groomer-blade-tilt', 'Y8', width);
    const upper = layout.points.filter(({ y }) => y < (layout.supplyY + layout.floorY) / 2);
    for (const { node: plus, x } of upper) {
      // What is asked for stands in the middle of what is seen of a long path.
      const scrolled = Math.max(0, Math.min(x - width / 2, layout.width - width));
      const tag = tagAt(width, scrolled);
      const courses = leadCourses({ plus, minus: -1 }, tag, layout);
      const place = placeStatement(layout, SENTENCES, tag, courses);
      expect(place.lines.join(' ')).toContain(SENTENCES[0]);
      expect(strikes(place, courses[0].x)).toBe(false);
      expect(strikes(place, x)).toBe(false);
    }
  });

  it('comes along where a long path is moved, right of its scale', () => {
    const layout = laidOut('groomer-blade-tilt', 'Y8', 768);
    const [still, moved] = [0, 40].map((scrolled) =>
      placeStatement(layout, SENTENCES, tagAt(768, scrolled), []),
    );
    expect(moved!.x - still!.x).toBe(40);
  });

  it('stands on top where the load falls early and no other lane runs there', () => {
    const layout = { ...laidOut('groomer-blade-tilt', 'Y8', 1280), branches: [] };
    const narrow = { ...layout, width: 768, fall: { ...layout.fall, x: 253 } };
    const place = placeStatement(
      narrow,
      ['X9.2 coil plug pin 2 is proved bad: bad joint, about 6 Ω.'],
      tagAt(768),
      [],
    );
    expect(place.y).toBeLessThan(narrow.supplyY - 73);
    expect(place.lines).toHaveLength(1);
  });
});
