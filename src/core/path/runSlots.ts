import type { Part } from '../circuit/schema';
import { POINT_RADIUS, type RunBox } from './layoutPath';
import type { Standing } from './standing';

/** Room that a part's symbol takes on its run, px. A wire is the line itself. */
export function symbolRoom(kind: Part['kind']): number {
  if (kind === 'wire') return 0;
  if (kind === 'valve') return 58;
  return kind === 'driver' ? 56 : kind === 'pin' ? 26 : 46;
}

export interface RunSlots {
  /** Doubt is wound on this run. */
  wound: boolean;
  symbolX: number;
  windX: number;
  windRoom: number;
}

/** Where the symbol and the winding of a run stand, side by side, so that a winding never covers a symbol. px. */
export function runSlots({ x1, x2, again }: RunBox, kind: Part['kind'], standing: Standing): RunSlots {
  const middle = (x1 + x2) / 2;
  const symbol = symbolRoom(kind);
  const room = x2 - x1 - 2 * POINT_RADIUS - 8;
  const wound = standing.turns > 0 && standing.state === 'doubt' && !again;
  if (!wound || symbol === 0) return { wound, symbolX: middle, windX: middle, windRoom: room };
  const symbolX = x1 + POINT_RADIUS + 6 + symbol / 2;
  const end = symbolX + symbol / 2;
  return { wound, symbolX, windX: (end + x2 - POINT_RADIUS - 2) / 2, windRoom: room - symbol };
}
