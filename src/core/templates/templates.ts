import type { Circuit } from '../circuit/schema';
import * as electrical from './electrical';
import * as fluid from './fluid';
import * as fromLine from './line';

/** A circuit that can be made from a few values. */
export interface Template {
  id: string;
  title: string;
  /** What is asked for, with what is taken when nothing is said. Units stand in the key. */
  build: (values?: Readonly<Record<string, number>>) => Circuit;
}

type Build = Template['build'];

/** Circuits for every kind of work, ready to be diagnosed. */
export const TEMPLATES: readonly Template[] = [
  ['single-coil', 'Single coil', electrical.singleCoil],
  ['two-way-pair', 'Two-way pair with suppression diodes', electrical.twoWayPair],
  ['stop-solenoid', 'Two-winding stop solenoid with operator interlock', electrical.stopSolenoid],
  ['driver-high-side', 'Controller output with codes, high side', electrical.driverHighSide],
  ['driver-low-side', 'Controller output with codes, low side', electrical.driverLowSide],
  ['twin-outputs', 'Two outputs with alike valves', electrical.twinOutputs],
  ['proportional-pilot', 'Proportional pilot valve', electrical.proportionalPilot],
  ['winch-pack', 'Winch reversing pack of four', electrical.winchPack],
  ['change-over-relay', 'Change-over relay', electrical.changeOverRelay],
  ['multi-output', 'Multi-output controller with master', electrical.multiOutput],
  ['three-wire-sensor', 'Three-wire sensor', electrical.threeWireSensor],
  ['heater-selector', 'Heaters with selector', electrical.heaterSelector],
  ['brake-release', 'Brake release', electrical.brakeRelease],
  ['clutch-interlocks', 'Clutch with interlocks', electrical.clutchInterlocks],
  ['self-holding', 'Self-holding relay', electrical.selfHolding],
  ['contactor-two-supplies', 'Contactor with control transformer', fromLine.contactorTwoSupplies],
  ['hoist-limits', 'Limit-switch chain of a hoist', fromLine.hoistLimits],
  ['level-control', 'Level control with fill valve', fromLine.levelControl],
  ['gas-bypass', 'Gas bypass on a controller output', fromLine.gasBypass],
  ['battery-over-line', 'Battery control of a line load', fromLine.batteryOverLine],
  ['air-clamp', 'Pneumatic clamp, 5/2 pilot valve', fluid.airClamp],
  ['spring-cylinder', 'Single-acting cylinder, 3/2 valve', fluid.springCylinder],
  ['vacuum-vent', 'Vacuum vent and actuator', fluid.vacuumVent],
  ['air-switch', 'Low-pressure air switch', fluid.airSwitch],
  ['gate-valve', 'Gate with 5/3 valve', fluid.gateValve],
  ['compressor-control', 'Compressor with pressure switch', fluid.compressorControl],
  ['hydraulic-lift', 'Hydraulic lift valve', fluid.hydraulicLift],
].map(([id, title, build]) => ({ id: id as string, title: title as string, build: build as Build }));
