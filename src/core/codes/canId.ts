/** A 29-bit identifier taken apart (SAE J1939-21, ISO 11783-3). */
export interface CanId {
  priority: number;
  pgn: number;
  sourceAddress: number;
  /** Address it is for; `null` for everyone by design of its group, 255 for everyone by address. */
  destination: number | null;
}

/** Takes a 29-bit identifier apart. */
export function parseCanId(id: number): CanId {
  const format = (id >>> 16) & 0xff;
  const specific = (id >>> 8) & 0xff;
  const pages = (id >>> 24) & 0x03;
  const toOne = format < 240;
  return {
    priority: (id >>> 26) & 0x07,
    pgn: pages * 65536 + format * 256 + (toOne ? 0 : specific),
    sourceAddress: id & 0xff,
    destination: toOne ? specific : null,
  };
}
