import { branchAmps, relayIn } from '../../circuit/world';
import { soft } from '../../diagnosis/prediction';
import { pullInAmps } from '../part/coil';
import { defineReading } from './module';
import { partOf } from './places';

export const click = defineReading<'click'>()({
  dead: false,
  mechanical: false,
  school: null,
  minutes: 0.6,
  mistakeRate: 0.03,
  shows: { is: 'choice', choices: 2, valueOf: (key) => key === 'true' },
  bind: (model, solver, test, field) => {
    const mend = 'only a coil or relay clicks';
    const { part, branches, index } = partOf(model, solver, test.part, field, ['relay', 'coil'], mend);
    if (part.kind === 'relay') {
      return [
        { mode: 'live' },
        (world) => {
          const yes = relayIn(world, index) && !world.jammed.has(index) ? 0.98 : 0.02;
          return { type: 'choice', odds: { true: yes, false: 1 - yes } };
        },
      ];
    }
    const pullIn = pullInAmps(branches[0]!, part);
    return [
      { mode: 'live' },
      (world) => {
        if (world.jammed.has(index)) return { type: 'choice', odds: { true: 0.05, false: 0.95 } };
        const amps = Math.abs(branchAmps(world, branches[0]!.index));
        const yes = soft(Math.log(Math.max(amps, 1e-12) / pullIn));
        return { type: 'choice', odds: { true: yes, false: 1 - yes } };
      },
    ];
  },
});
