import { InputError } from '../../circuit/inputError';
import { soft } from '../../diagnosis/prediction';
import { defineReading } from './module';
import { partOf } from './places';

/** A terminal counts as on from this share of its supply: the threshold of an input card's own middle. */
const ON_SHARE = 0.5;
/** How sharply that is: a card has a dead band. */
const BAND = 0.15;
/** A page may be an old picture; that it is misread is weighed with every reading. */
const MISREAD = 0.002;

/** A bit on a controller's own page: whether its program tells an output to be on, or what its card says came of it. */
export const bit = defineReading<'bit'>()({
  dead: false,
  mechanical: false,
  school: null,
  minutes: 0.4,
  mistakeRate: 0.01,
  shows: { is: 'choice', choices: 2, valueOf: (key) => key as '0' },
  bind: (model, solver, test, field) => {
    const { part, branches } = partOf(model, solver, test.part, field, ['driver'], 'only an output has bits');
    if (part.bits?.[test.which] === undefined)
      throw new InputError(
        `${field}.which`,
        `${part.ref} shows no ${test.which} bit; say on the drawing what it is called`,
      );
    const own = branches[0]!;
    const odds = (on: number) => ({ type: 'choice' as const, odds: { '1': on, '0': 1 - on } });
    if (test.which === 'command') {
      const told = solver.situation.commanded[own.index] === 1;
      return [
        { mode: 'live' },
        (_world, edits) => {
          const lost = edits.some(
            (edit) => edit.type === 'force' && edit.branch === own.index && edit.unasked,
          );
          return odds(told && !lost ? 1 - MISREAD : MISREAD);
        },
      ];
    }
    // What its card reads back: the volts that it puts on its load, from its terminal to the other side. What floats has none.
    const [plus, minus, out] = [part.nodes.supply, part.nodes.return, part.nodes.out].map((name) =>
      model.compiled.nodeIndex.get(name)!,
    ) as [number, number, number];
    const other = part.side === 'low' ? plus : minus;
    const full = Math.abs(solver.solve({ mode: 'live' }).changed.pairVolts(plus, minus)) || 1;
    return [
      { mode: 'live' },
      (world) => {
        const volts = Math.abs(world.changed.pairVolts(out, other)) || 0;
        const on = soft(Math.log(Math.max(volts, 1e-9) / (ON_SHARE * full)), BAND);
        return odds(Math.min(1 - MISREAD, Math.max(MISREAD, on)));
      },
    ];
  },
});
