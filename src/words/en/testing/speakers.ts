import { demoCircuit } from '@/testing/demoCircuits';
import { CircuitModel } from '@/core/circuit/model';
import { findLanes } from '@/core/path/lanes';
import { TEMPLATES } from '@/core/templates/templates';
import type { Speaker } from '../readings';

export const speakerOf = (model: CircuitModel): Speaker => ({
  model,
  lanes: findLanes(model),
  gaugeUnit: 'bar',
});

/** Of the blade that tilts one way only. */
export const tilt = speakerOf(new CircuitModel(demoCircuit('groomer-blade-tilt')));

/** Of a template, by its id. */
export const template = (id: string) =>
  speakerOf(new CircuitModel(TEMPLATES.find((one) => one.id === id)!.build()));
