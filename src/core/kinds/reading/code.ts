import { branchAmps } from '../../circuit/world';
import { soft } from '../../diagnosis/prediction';
import { defineReading } from './module';
import { partOf } from './places';

export const code = defineReading<'code'>()({
  dead: false,
  mechanical: false,
  school: null,
  minutes: 0.4,
  mistakeRate: 0.005,
  shows: {
    is: 'choice',
    choices: 3,
    valueOf: (key) => (key === '' ? [] : key.split(',').map(Number)),
  },
  bind: (model, solver, test, field) => {
    const mend = 'only a driver sets codes';
    const { part, branches } = partOf(model, solver, test.part, field, ['driver'], mend);
    const branch = branches[0]!.index;
    const modes = Object.entries(part.codes ?? {});
    const commanded = solver.situation.commanded[branch] === 1 && solver.situation.present[branch] === 1;
    return [
      { mode: 'live' },
      (world) => {
        const amps = Math.abs(branchAmps(world, branch));
        let odds: Record<string, number> = { '': 1 };
        for (const [mode, { belowAmps, aboveAmps }] of modes) {
          const below = belowAmps === undefined ? 0 : soft(Math.log(belowAmps / Math.max(amps, 1e-9)));
          const above = aboveAmps === undefined ? 0 : soft(Math.log(Math.max(amps, 1e-9) / aboveAmps));
          const set = commanded ? Math.max(below, above) : 0;
          const next: Record<string, number> = {};
          for (const [key, share] of Object.entries(odds)) {
            next[key] = (next[key] ?? 0) + share * (1 - set);
            const both = key === '' ? mode : `${key},${mode}`;
            if (set > 0) next[both] = (next[both] ?? 0) + share * set;
          }
          odds = next;
        }
        return { type: 'choice', odds };
      },
    ];
  },
});
