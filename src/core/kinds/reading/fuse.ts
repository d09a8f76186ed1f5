import { isSpent } from '../../circuit/edits';
import { fuseLoadOf, type World } from '../../circuit/world';
import { FUSE_LIMIT } from '../../circuit/devices';
import { openedBy } from '../../circuit/fuseTime';
import { soft } from '../../diagnosis/prediction';
import { defineReading } from './module';
import { partOf } from './places';

const LIVE = { mode: 'live' } as const;
/** Of those who look at a fuse that is gone already, who say no more than that. */
const FOUND_BLOWN = 0.6;

export const fuse = defineReading<'fuse'>()({
  dead: false,
  mechanical: false,
  school: null,
  minutes: 0.7,
  // A blown fuse is hard to mistake.
  mistakeRate: 0.008,
  shows: { is: 'choice', choices: 2, valueOf: (key) => key as 'holds' },
  bind: (model, solver, test, field) => {
    const { index } = partOf(model, solver, test.part, field, ['fuse', 'breaker'], 'name a fuse or breaker');
    const seconds = test.setup.afterSeconds ?? Infinity;
    const own = model.compiled.parts[index]!.branches[0]!.index;
    const blowsIn = (world: World) => {
      const load = Math.max(fuseLoadOf(world, index), 1e-9);
      return soft(Math.log(load)) * (seconds === Infinity ? 1 : openedBy(seconds, 100 * FUSE_LIMIT * load));
    };
    return [
      LIVE,
      (world, edits) => {
        const gone = edits.some((edit) => isSpent(edit) && edit.branch === own);
        // Who looks at a fuse that is gone already puts in a new one and watches that; or says that it blew.
        const blows = gone
          ? FOUND_BLOWN +
            (1 - FOUND_BLOWN) *
              blowsIn(
                solver.solve(
                  LIVE,
                  edits.filter((edit) => !isSpent(edit)),
                ),
              )
          : blowsIn(world);
        return { type: 'choice', odds: { blows, holds: 1 - blows } };
      },
    ];
  },
});
