import { demoCircuit } from './demoCircuits';
import { TEMPLATES } from '../core/templates/templates';
import { coilPlaces, type CoilPlace } from '../core/trace/testing/plantedCoil';

const DEMO = [
  'compressor-gate',
  'dryer-air-switch',
  'groomer-blade-float',
  'groomer-blade-tilt',
  'groomer-tiller-float',
  'heater-flap',
  'loader-bucket-lock',
  'press-clamp',
  'winch-reversing',
] as const;

/** Coils on direct volts of the demonstration's circuits and of the templates. */
export function tracePlaces(): CoilPlace[] {
  const circuits = [...DEMO.map((name) => demoCircuit(name)), ...TEMPLATES.map(({ build }) => build())];
  return circuits.flatMap((circuit) => coilPlaces(circuit));
}
