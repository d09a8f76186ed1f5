import 'server-only';
import { closedWithoutDigest } from '@/db/past';
import {
  countSoon,
  countTrends,
  findTrend,
  fleetDots,
  listTrends,
  type TrendCursor,
  type TrendFilter,
} from '@/db/trends';
import { digestSoon } from '../desk/digests';
import { openPolicy } from '../policy/server';
import { siteToday } from '../siteDays';
import { driftFacts, type DriftFacts } from './driftFacts';

const ROWS_A_PAGE = 20;
/** The shed shows the worst few. */
const WORST = 3;
const MOST_FLEET = 120;
/** Jobs of before that are looked at anew each time somebody asks. */
const CAUGHT_UP = 20;

/** A page of what drifts, the worst first. */
export async function openDrift(filter: TrendFilter, after: TrendCursor | undefined) {
  const [rows, counts, { policy }, behind] = await Promise.all([
    listTrends(ROWS_A_PAGE + 1, filter, after),
    countTrends(),
    openPolicy(),
    catchUp(),
  ]);
  const page = rows.slice(0, ROWS_A_PAGE);
  const last = page.at(-1);
  const today = siteToday(policy.timeZone);
  return {
    rows: page.map((row) => driftFacts(row, today, policy.gaugeUnit)),
    counts,
    behind,
    more:
      rows.length > page.length && last
        ? { on: last.sort_on, functionId: last.function_id, place: last.place_key }
        : null,
  };
}

/** What is worst in the shed, for its own page. */
export async function worstDrift() {
  const { policy } = await openPolicy();
  const today = siteToday(policy.timeZone);
  const [rows, soon] = await Promise.all([listTrends(WORST, { moving: true }), countSoon(today)]);
  return { rows: rows.map((row) => driftFacts(row, today, policy.gaugeUnit)), soon };
}

/** One place with its fellows on other machines; null where nothing was proved there. */
export async function openPlace(functionId: string, placeKey: string) {
  const row = await findTrend(functionId, placeKey);
  if (!row) return null;
  const [fleet, { policy }] = await Promise.all([fleetDots(functionId, placeKey, MOST_FLEET), openPolicy()]);
  return {
    row,
    fleet,
    gaugeUnit: policy.gaugeUnit,
    timeZone: policy.timeZone,
    today: siteToday(policy.timeZone),
  };
}

/** What drifts on one machine. */
export async function driftOfMachine(machine: string): Promise<DriftFacts[]> {
  const [rows, { policy }] = await Promise.all([listTrends(WORST, { machine, moving: true }), openPolicy()]);
  const today = siteToday(policy.timeZone);
  return rows.map((row) => driftFacts(row, today, policy.gaugeUnit));
}

/** Jobs handed over before their past was kept are looked at now; says how many there still are, at most so many. */
async function catchUp(): Promise<number> {
  const jobs = await closedWithoutDigest(CAUGHT_UP);
  for (const id of jobs) digestSoon(id);
  return jobs.length;
}
