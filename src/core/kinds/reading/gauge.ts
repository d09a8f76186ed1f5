import type { CircuitModel } from '../../circuit/model';
import type { SituationSolver } from '../../circuit/solveSituation';
import { motionOf } from '../../diagnosis/predictFluid';
import { kindOf } from '../part';
import { InputError } from '../../circuit/inputError';
import type { OwnGauge } from '../../circuit/partSchema';
import { GAUGE_STANDS, type GaugeStand } from '../../circuit/schema';
import type { Prediction } from '../../diagnosis/prediction';
import { functionKind } from './function';
import { defineReading } from './module';
import { findPart } from '../../circuit/situation';

/** Chance that somebody in passing takes it for the next mark, up or down. */
const SEEN_BESIDE = 0.08;

/**
 * What the machine's own gauge showed while a part was commanded: at rest it stands where the part at rest leaves it, at work where the
 * part at work brings it, and of one that works weakly anywhere between.
 */
export const gauge = defineReading<'gauge'>()({
  dead: false,
  mechanical: false,
  school: null,
  minutes: 0.3,
  mistakeRate: 0.05,
  shows: { is: 'choice', choices: GAUGE_STANDS.length, valueOf: (key) => key as GaugeStand },
  bind: (model, solver, { part: ref, setup }, field) => {
    const { part } = model.compiled.parts[findPart(model.compiled, ref, `${field}.part`)]!;
    const own = 'ownGauge' in part ? part.ownGauge : undefined;
    if (!own)
      throw new InputError(
        `${field}.part`,
        `the machine has no gauge that follows "${ref}"; say on the drawing what it shows`,
      );
    // Of what stands at its rest in this position, doing as it should is to stay there.
    const comesBack = kindOf(part).traits.actuator && isAtRest(model, solver, ref);
    const shows = comesBack ? { ...own, atRest: own.works, works: own.atRest } : own;
    const [options, worksAt] = functionKind.bind(
      model,
      solver,
      { kind: 'function', part: ref, setup },
      field,
    );
    return [options, (world, edits) => standsBy(worksAt(world, edits), shows)];
  },
});

/** Whether the sound machine leaves an actuator where it stands with every control at rest. */
function isAtRest(model: CircuitModel, solver: SituationSolver, ref: string): boolean {
  const index = model.compiled.partIndex.get(ref)!;
  const wayIn = (one: SituationSolver) => motionOf(one.solve({ mode: 'live' }), index).direction;
  return wayIn(solver) === wayIn(model.situation({}));
}

function standsBy(works: Prediction, { atRest, works: atWork }: OwnGauge): Prediction {
  if (works.type !== 'choice') throw new TypeError('whether a part works is a choice');
  const odds = new Array<number>(GAUGE_STANDS.length).fill(0);
  const add = (share: number, weight: number) => {
    const at = share * (GAUGE_STANDS.length - 1);
    const [below, above] = [Math.floor(at), Math.ceil(at)];
    odds[below]! += weight * (1 - (at - below));
    odds[above]! += weight * (at - below);
  };
  add(atRest, works.odds['dead'] ?? 0);
  add(atWork, works.odds['works'] ?? 0);
  for (const between of [0.25, 0.5, 0.75])
    add(atRest + between * (atWork - atRest), (works.odds['weak'] ?? 0) / 3);
  const seen = odds.map(
    (own, at) =>
      own * (1 - SEEN_BESIDE) + (SEEN_BESIDE / 2) * ((odds[at - 1] ?? own) + (odds[at + 1] ?? own)),
  );
  return {
    type: 'choice',
    odds: Object.fromEntries(GAUGE_STANDS.map((stand, at) => [stand, seen[at]!])) as Record<
      GaugeStand,
      number
    >,
  };
}
