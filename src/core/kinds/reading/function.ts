import { branchAmps } from '../../circuit/world';
import { soft } from '../../diagnosis/prediction';
import { actuatorPrediction } from '../../diagnosis/predictFluid';
import { pullInAmps } from '../part/coil';
import { kindsThat } from '../part/index';
import { defineReading } from './module';
import { partOf } from './places';

/** Kinds that can be watched working. */
const KINDS = kindsThat('works');
const WORKS_SHARE = 0.7;
const DEAD_SHARE = 0.2;

export const functionKind = defineReading<'function'>()({
  dead: false,
  mechanical: false,
  school: null,
  minutes: 0.7,
  mistakeRate: 0.03,
  shows: { is: 'choice', choices: 3, valueOf: (key) => key as 'works' },
  bind: (model, solver, test, field) => {
    const mend = `a function is one of: ${KINDS.join(', ')}`;
    const { part, branches, index } = partOf(model, solver, test.part, field, KINDS, mend);
    if (part.kind === 'cylinder' || part.kind === 'vacuumActuator')
      return [{ mode: 'live' }, actuatorPrediction(solver, index, WORKS_SHARE, DEAD_SHARE)];
    const branch = branches[0]!.index;
    const still = { type: 'choice', odds: { works: 0.02, weak: 0.03, dead: 0.95 } } as const;
    if (part.kind === 'coil') {
      const pullIn = pullInAmps(branches[0]!, part);
      return [
        { mode: 'live' },
        (world) => {
          if (world.jammed.has(index)) return still;
          const amps = Math.abs(branchAmps(world, branch));
          const ratio = Math.log(Math.max(amps, 1e-12) / pullIn);
          const works = soft(ratio);
          // "Weak" speaks for a current near the threshold, on either side of it.
          const weak = 0.4 * Math.exp(-((ratio / 0.3) ** 2));
          return {
            type: 'choice',
            odds: { works: works * (1 - weak), weak, dead: (1 - works) * (1 - weak) },
          };
        },
      ];
    }
    const healthy = Math.abs(branchAmps(solver.solve({ mode: 'live' }), branch));
    return [
      { mode: 'live' },
      (world) => {
        if (world.jammed.has(index)) return still;
        const amps = Math.abs(branchAmps(world, branch));
        if (healthy < 1e-9) {
          const runs = amps > 1e-6 ? 0.9 : 0.02;
          return { type: 'choice', odds: { works: runs, weak: 0.01, dead: 0.99 - runs } };
        }
        const works = soft(Math.log(Math.max(amps / healthy, 1e-12) / WORKS_SHARE));
        const dead = 1 - soft(Math.log(Math.max(amps / healthy, 1e-12) / DEAD_SHARE));
        return { type: 'choice', odds: { works, dead, weak: Math.max(0, 1 - works - dead) } };
      },
    ];
  },
});
