import { FUSE_LIMIT } from '../../circuit/devices';
import { openedBy } from '../../circuit/fuseTime';
import { soft } from '../../diagnosis/prediction';
import { defineReading } from './module';
import { partOf } from './places';

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
    return [
      { mode: 'live' },
      (world) => {
        const load = Math.max(world.fuseLoad.get(index) ?? 0, 1e-9);
        const blows =
          soft(Math.log(load)) * (seconds === Infinity ? 1 : openedBy(seconds, 100 * FUSE_LIMIT * load));
        return { type: 'choice', odds: { blows, holds: 1 - blows } };
      },
    ];
  },
});
