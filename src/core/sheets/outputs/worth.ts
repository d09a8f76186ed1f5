import type { MendingWay, ShopMarks } from '../../tables/marks';
import type { OutputsCause } from './outputs';

/** A way to mend what a matrix comes to, with what it takes in this shop. */
export interface Mending {
  way: MendingWay;
  minutes: number;
  /** Of the parts; null where the shop has not written it. */
  cost: number | null;
}

/**
 * Ways that mend a cause, the smallest first. A loop of sensors guards something: it is mended, never jumped. Crossed wires and an open
 * common lie in the field; what only a stray field shows needs nothing.
 */
const WAYS: Readonly<Record<OutputsCause, readonly MendingWay[]>> = {
  healthy: [],
  ghost: [],
  deadSource: ['supply'],
  openSensorLoop: ['wire', 'sensor'],
  deadMaster: ['master', 'controller'],
  deadModule: ['module', 'controller'],
  deadOutput: ['freeOutput', 'module', 'controller'],
  crossed: ['wire', 'module'],
  leaking: ['module', 'controller'],
  selector: ['selector', 'controller'],
  openCommon: ['wire'],
};

/** What each way takes; none while no cause stands. */
export function mendings(cause: OutputsCause | null, { mending }: ShopMarks): Mending[] {
  return cause === null ? [] : WAYS[cause].map((way) => ({ way, ...mending[way] }));
}
