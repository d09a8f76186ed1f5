import type { Reading, Setup } from '../circuit/schema';
import { type Lane, type Lanes, waysOf } from './lane';
import type { Standing } from './standing';

/** What a job is about now, as far as it decides which lane is shown. */
interface Asked {
  /** Nodes the present test asks for. */
  asked: readonly number[];
  /** Position it is taken in. */
  setup?: Setup | undefined;
  standings: readonly Standing[];
}

/** Lane the figure shows as its run: the asked one, else the one with most doubt; driven as the test or the complaint has it. */
export function chooseLane(
  lanes: Lanes,
  { asked, setup, standings }: Asked,
  readings: readonly Reading[] = [],
): Lane | undefined {
  const score = (lane: Lane) => {
    const steps = [...lane.feed, lane.load, ...lane.back];
    const nodes = new Set(steps.flatMap(({ from, to }) => [from, to]));
    const hits = asked.filter((node) => nodes.has(node)).length;
    const doubt = steps.reduce((sum, { part }) => sum + standings[part]!.share, 0);
    return 10 * hits + doubt;
  };
  const chosen = lanes.lanes.reduce<Lane | undefined>(
    (best, lane) => (best && score(best) >= score(lane) ? best : lane),
    undefined,
  );
  return chosen && drivenAs(lanes, chosen, [setup, complained(readings)?.setup]);
}

/** Lane of the last complaint about a load, driven the way that was complained about. */
export function complaintLane(lanes: Lanes, readings: readonly Reading[]): Lane | undefined {
  const complaint = complained(readings);
  const lane = complaint && lanes.lanes.find(({ id }) => id === complaint.part);
  return lane && drivenAs(lanes, lane, [complaint.setup]);
}

/** The way a lane is driven in the first of the set-ups that drives it at all; as it is drawn where none does. */
export function drivenAs(
  { controls }: Pick<Lanes, 'controls'>,
  lane: Lane,
  setups: readonly (Setup | undefined)[],
): Lane {
  const at = (setup: Setup, control: string) => setup.controls?.[control] ?? controls[control]![0];
  const same = (one: Setup, other: Setup) =>
    Object.keys(controls).every((control) => at(one, control) === at(other, control));
  for (const setup of setups) {
    const way = setup && waysOf(lane).find(({ drivenIn }) => drivenIn?.some((one) => same(one, setup)));
    if (way) return way;
  }
  return lane;
}

function complained(readings: readonly Reading[]) {
  const last = readings.findLast((one) => one.kind === 'function' && one.value !== 'works');
  return last?.kind === 'function' ? last : undefined;
}
