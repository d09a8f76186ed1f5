import type { Circuit } from '../circuit/schema';
import * as electrical from './electrical';
import * as fluid from './fluid';
import * as fromLine from './line';

/** One of the few values that a template asks for. */
export interface TemplateField {
  key: string;
  label: string;
  unit: string;
  value: number;
  least: number;
  most: number;
}

/** A circuit that can be made from a few values. */
export interface Template {
  id: string;
  title: string;
  /** What is asked for, with what is taken when nothing is said. */
  fields: readonly TemplateField[];
  build: (values?: Readonly<Record<string, number>>) => Circuit;
}

const supply = (value: number): TemplateField => ({
  key: 'volts',
  label: 'Supply',
  unit: 'V',
  value,
  least: value <= 48 ? 5 : 60,
  most: value <= 48 ? 60 : 480,
});
const control = (value: number): TemplateField => ({
  key: 'controlVolts',
  label: 'Control supply',
  unit: 'V',
  value,
  least: 12,
  most: 120,
});
const ohms = (value: number, label = 'Coil', key = 'ohms'): TemplateField => ({
  key,
  label,
  unit: 'Ω',
  value,
  least: value / 20,
  most: value * 20,
});
const amps = (value: number, label = 'Fuse', key = 'amps'): TemplateField => ({
  key,
  label,
  unit: 'A',
  value,
  least: 0.5,
  most: 100,
});
const outputs: TemplateField = { key: 'outputs', label: 'Outputs', unit: '', value: 4, least: 1, most: 24 };

/** Circuits for every kind of work, ready to be diagnosed. */
export const TEMPLATES: readonly Template[] = (
  [
    ['single-coil', 'Single coil', [supply(12.6), ohms(9), amps(5)], electrical.singleCoil],
    [
      'two-way-pair',
      'Two-way pair with suppression diodes',
      [supply(12.6), ohms(7.4, 'Each coil'), amps(7.5)],
      electrical.twoWayPair,
    ],
    [
      'stop-solenoid',
      'Two-winding stop solenoid with operator interlock',
      [supply(12.6), ohms(0.9, 'Pull winding', 'pullOhms'), ohms(16, 'Hold winding', 'holdOhms')],
      electrical.stopSolenoid,
    ],
    [
      'driver-high-side',
      'Controller output with codes, high side',
      [supply(25.2), ohms(24), amps(3, 'Output limit', 'limit')],
      electrical.driverHighSide,
    ],
    [
      'driver-low-side',
      'Controller output with codes, low side',
      [supply(12.6), ohms(6.5)],
      electrical.driverLowSide,
    ],
    [
      'twin-outputs',
      'Two outputs with alike valves',
      [supply(25.2), ohms(21, 'Each coil')],
      electrical.twinOutputs,
    ],
    [
      'proportional-pilot',
      'Proportional pilot valve',
      [supply(12.6), ohms(5.3)],
      electrical.proportionalPilot,
    ],
    [
      'winch-pack',
      'Winch reversing pack of four',
      [supply(12.4), ohms(0.09, 'Motor', 'motorOhms')],
      electrical.winchPack,
    ],
    [
      'change-over-relay',
      'Change-over relay',
      [supply(12.6), ohms(85, 'Relay coil')],
      electrical.changeOverRelay,
    ],
    [
      'multi-output',
      'Multi-output controller with master',
      [supply(24.5), ohms(30, 'Each coil'), outputs],
      electrical.multiOutput,
    ],
    [
      'three-wire-sensor',
      'Three-wire sensor',
      [ohms(4700, 'Sensor, end to end')],
      electrical.threeWireSensor,
    ],
    [
      'heater-selector',
      'Heaters with selector',
      [supply(12.6), ohms(0.9, 'Each element')],
      electrical.heaterSelector,
    ],
    ['brake-release', 'Brake release', [supply(25.2), ohms(18)], electrical.brakeRelease],
    ['clutch-interlocks', 'Clutch with interlocks', [supply(12.6), ohms(3.2)], electrical.clutchInterlocks],
    ['self-holding', 'Self-holding relay', [supply(24.5), ohms(160, 'Relay coil')], electrical.selfHolding],
    [
      'contactor-two-supplies',
      'Contactor with control transformer',
      [supply(240), control(24)],
      fromLine.contactorTwoSupplies,
    ],
    ['hoist-limits', 'Limit-switch chain of a hoist', [supply(120)], fromLine.hoistLimits],
    ['level-control', 'Level control with fill valve', [supply(120), control(24)], fromLine.levelControl],
    ['gas-bypass', 'Gas bypass on a controller output', [supply(24)], fromLine.gasBypass],
    ['battery-over-line', 'Battery control of a line load', [supply(120)], fromLine.batteryOverLine],
    ['speed-pickup', 'Speed pick-up on a controller input', [supply(12.6)], fromLine.speedPickup],
    ['air-clamp', 'Pneumatic clamp, 5/2 pilot valve', [supply(24.2), ohms(48)], fluid.airClamp],
    ['spring-cylinder', 'Single-acting cylinder, 3/2 valve', [supply(24.2), ohms(60)], fluid.springCylinder],
    ['vacuum-vent', 'Vacuum vent and actuator', [supply(12.6), ohms(28)], fluid.vacuumVent],
    ['air-switch', 'Low-pressure air switch', [supply(24.2)], fluid.airSwitch],
    ['gate-valve', 'Gate with 5/3 valve', [supply(24.2), ohms(36, 'Each coil')], fluid.gateValve],
    ['compressor-control', 'Compressor with pressure switch', [supply(120)], fluid.compressorControl],
    [
      'proportional-flow',
      'Flow valve that follows its current',
      [supply(24.6), ohms(21)],
      fluid.proportionalFlow,
    ],
    ['hydraulic-lift', 'Hydraulic lift valve', [supply(25.2), ohms(19)], fluid.hydraulicLift],
    [
      'hydraulic-both-ways',
      'Hydraulic lift and lower with relief valve',
      [supply(25.2), ohms(19, 'Each coil')],
      fluid.hydraulicBothWays,
    ],
  ] as const satisfies readonly (readonly [string, string, readonly TemplateField[], Template['build']])[]
).map(([id, title, fields, build]) => ({ id, title, fields, build }));
