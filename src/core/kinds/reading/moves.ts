import { MOTIONS } from '../../circuit/schema';
import { movesPrediction } from '../../diagnosis/predictFluid';
import { defineReading } from './module';
import { partOf } from './places';

export const moves = defineReading<'moves'>()({
  dead: false,
  mechanical: true,
  school: null,
  minutes: 0.5,
  mistakeRate: 0.02,
  shows: { is: 'choice', choices: MOTIONS.length, valueOf: (key) => key as 'still' },
  bind: (model, solver, test, field) => {
    const kinds = ['cylinder', 'vacuumActuator'] as const;
    const { index } = partOf(model, solver, test.part, field, kinds, 'name a cylinder or actuator');
    return [{ mode: 'live' }, movesPrediction(solver, model.situation({}), index)];
  },
});
