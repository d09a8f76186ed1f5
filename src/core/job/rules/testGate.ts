import { SUPPLY_ENERGIES } from '../../circuit/energies';
import type { CircuitModel } from '../../circuit/model';
import type { Test } from '../../circuit/schema';
import { isDeadKind } from '../../circuit/testPlace';
import { samePerson, type Person } from '../../people/roles';
import { oilOpened } from '../../safety/pressedOil';
import { reliefsCutOff } from '../../safety/relief';
import { refrigerantOpened } from '../../safety/refrigerant';
import { guardsDefeated } from '../../safety/guards';
import { suppliesNeeded } from '../../safety/suppliesNeeded';
import type { IsolationPoint } from '../../safety/isolationPlan';
import type { JobState } from '../reduceJob';
import { touchesLineVolts } from './signing';

/** What stands between a test and the hands that take it. */
export type TestGate =
  | { state: 'free' }
  /** Its set-up takes these guards out of action: it is not taken at all. */
  | { state: 'forbidden'; guards: string[] }
  /** It takes these relief valves from a source that still runs: it is not taken so. */
  | { state: 'reliefOff'; reliefs: string[] }
  /** It opens oil under pressure at these places: it is not taken so. */
  | { state: 'oilOpened'; at: string[] }
  | { state: 'refrigerantOpened'; at: string[] }
  /** It brings a meter to line volts, and who would take it is not licensed for that. */
  | { state: 'notLicensed' }
  /** It needs power from points that other people's locks are on: nobody takes those off but they. */
  | { state: 'othersLocks'; points: string[]; owners: string[] }
  /** The test needs the work dead and the plan is not signed. */
  | { state: 'unsigned' }
  /** The test needs these points closed again; they were opened for an earlier one. */
  | { state: 'close'; points: string[] }
  /** The test needs power or pressure from these points, which stand locked. */
  | { state: 'open'; points: string[] };

/** Whether a test may be taken as the isolation stands. Dead tests wait for the signed plan; powered ones open it by name. */
export function testGate(
  model: CircuitModel,
  plan: readonly IsolationPoint[],
  { madeSafe, isolated, locks }: Pick<JobState, 'madeSafe' | 'isolated' | 'locks'>,
  test: Test,
  by: Pick<Person, 'name' | 'licences'>,
): TestGate {
  const guards = guardsDefeated(model, test.setup);
  if (guards.length > 0) return { state: 'forbidden', guards };
  const reliefs = reliefsCutOff(model, test.setup);
  if (reliefs.length > 0) return { state: 'reliefOff', reliefs };
  const at = oilOpened(model, test);
  if (at.length > 0) return { state: 'oilOpened', at };
  const cold = refrigerantOpened(model, test);
  if (cold.length > 0) return { state: 'refrigerantOpened', at: cold };
  if (touchesLineVolts(model, test) && !by.licences.includes('lineVolts')) return { state: 'notLicensed' };
  const supplies = plan.filter(({ energy }) => (SUPPLY_ENERGIES as readonly string[]).includes(energy));
  if (isDeadKind(test.kind)) {
    if (!madeSafe) return { state: 'unsigned' };
    const open = supplies.filter(({ prove, point }) => prove.length > 0 && !isolated.has(point));
    if (open.length > 0) return { state: 'close', points: open.map(({ point }) => point) };
  }
  // Only what feeds the test: nothing else is opened for it.
  const needed = suppliesNeeded(model, test);
  const locked = supplies.filter(({ point }) => isolated.has(point) && needed.includes(point));
  const points = locked.map(({ point }) => point);
  const owners = points
    .flatMap((point) => locks.get(point) ?? [])
    .map(({ person }) => person)
    .filter((person) => !samePerson(person, by.name));
  if (owners.length > 0) return { state: 'othersLocks', points, owners: [...new Set(owners)] };
  return points.length > 0 ? { state: 'open', points } : { state: 'free' };
}

/** How the work stands before a hand goes in. */
export type WorkStanding =
  /** Every point of the plan is closed, under the signature. */
  | { state: 'safe' }
  | { state: 'unsigned' }
  /** Signed, and these were opened for a test since. */
  | { state: 'openedForTest'; open: IsolationPoint[] };

export function workStanding(
  plan: readonly IsolationPoint[],
  { madeSafe, isolated }: Pick<JobState, 'madeSafe' | 'isolated'>,
): WorkStanding {
  if (madeSafe === null) return { state: 'unsigned' };
  const open = plan.filter(({ point }) => !isolated.has(point));
  return open.length > 0 ? { state: 'openedForTest', open } : { state: 'safe' };
}

/** Every point of the plan stands closed under the signature, none of them open for a test. */
export function standsSafe(...[plan, state]: Parameters<typeof workStanding>): boolean {
  return workStanding(plan, state).state === 'safe';
}
