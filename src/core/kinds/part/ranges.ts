import type { SeverityRange } from '../../diagnosis/faultTypes';

/** Ohms of a dead short inside a part. */
export const SHORT_OHMS = 0.02;
export const LOW_SUPPLY: SeverityRange = {
  unit: 'factor',
  least: 0.2,
  most: 0.92,
  mainLeast: 0.4,
  mainMost: 0.9,
};
/** A choke that slows the function, up to one that stops it. */
export const BLOCKED: SeverityRange = {
  unit: 'restriction',
  least: 0.4,
  most: 1e6,
  mainLeast: 1.5,
  mainMost: 1e3,
};
/** From a hose that is off down to bubbles in water. */
export const LEAK: SeverityRange = {
  unit: 'restriction',
  least: 0.02,
  most: 2e4,
  mainLeast: 0.02,
  mainMost: 30,
};
export const SEAL_LEAK: SeverityRange = {
  unit: 'restriction',
  least: 0.05,
  most: 1e4,
  mainLeast: 0.1,
  mainMost: 300,
};
export const LOW_PRESSURE: SeverityRange = {
  unit: 'factor',
  least: 0.03,
  most: 0.9,
  mainLeast: 0.05,
  mainMost: 0.8,
};
export const DRIFT: SeverityRange = { unit: 'factor', least: 0.3, most: 4, mainLeast: 0.4, mainMost: 3 };
