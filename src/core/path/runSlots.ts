import type { Part } from '../circuit/schema';
import { POINT_RADIUS, type RunBox } from './layoutPath';
import type { Standing } from './standing';

/** Room that a part's symbol takes on its run, px. A wire is the line itself. */
export function symbolRoom(kind: Part['kind']): number {
  if (kind === 'wire') return 0;
  if (kind === 'valve') return 58;
  return kind === 'driver' ? 56 : kind === 'pin' ? 26 : 46;
}

/** Share of a short run that its symbol may take beside a winding, and the least it is drawn at. */
const SYMBOL_SHARE = 0.62;
const LEAST_SYMBOL = 0.55;
const clamp = (value: number, least: number, most: number) => Math.min(Math.max(value, least), most);

export interface RunSlots {
  /** Doubt is wound on this run. */
  wound: boolean;
  symbolX: number;
  /** The symbol is drawn this much smaller where its run is short: it never covers a point. */
  symbolScale: number;
  windX: number;
  windRoom: number;
}

/** Where the symbol and the winding of a run stand, side by side, so that a winding never covers a symbol. px. */
export function runSlots({ x1, x2, again }: RunBox, kind: Part['kind'], standing: Standing): RunSlots {
  const middle = (x1 + x2) / 2;
  const room = x2 - x1 - 2 * POINT_RADIUS - 8;
  const wound = standing.turns > 0 && standing.state === 'doubt' && !again;
  const full = symbolRoom(kind);
  const symbolScale = full === 0 ? 1 : clamp((wound ? SYMBOL_SHARE * room : room) / full, LEAST_SYMBOL, 1);
  const symbol = full * symbolScale;
  if (!wound || symbol === 0) return { wound, symbolX: middle, symbolScale, windX: middle, windRoom: room };
  const symbolX = x1 + POINT_RADIUS + 6 + symbol / 2;
  const end = symbolX + symbol / 2;
  return { wound, symbolX, symbolScale, windX: (end + x2 - POINT_RADIUS - 2) / 2, windRoom: room - symbol };
}
