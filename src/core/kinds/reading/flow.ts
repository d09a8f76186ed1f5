import { flowPrediction } from '../../diagnosis/predictFluid';
import { defineReading } from './module';

export const flow = defineReading<'flow'>()({
  dead: false,
  mechanical: true,
  school: null,
  minutes: 0.5,
  mistakeRate: 0.03,
  shows: { is: 'choice', choices: 4, valueOf: (key) => key as 'none' },
  bind: (model, _solver, test, field) => [{ mode: 'live' }, flowPrediction(model, test, field)],
});
