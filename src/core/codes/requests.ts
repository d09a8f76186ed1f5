import { DM2 } from './j1939';

/**
 * Questions that the standard lets anybody ask of a bus without security (SAE J1939-21, request): they are answered by a message, clear
 * nothing and move nothing. There is no other way onto a bus from here: what is not in this list cannot be sent.
 */
export const BUS_QUESTION_NAMES = ['earlier'] as const;
export type BusQuestion = (typeof BUS_QUESTION_NAMES)[number];
/** Group of messages that each asks for. */
const GROUPS: Readonly<Record<BusQuestion, number>> = {
  /** Codes that were there and are not now. */
  earlier: DM2,
};

/** Request, to everybody, of an off-board tool: priority 6, group 59904, destination 255, address 249. */
export const REQUEST_ID = 0x18eafff9;

/** A question as a frame: its identifier, and the group asked for, low byte first. */
export function questionFrame(question: BusQuestion): [id: number, data: number[]] {
  const group = GROUPS[question];
  return [REQUEST_ID, [group & 255, (group >> 8) & 255, (group >> 16) & 255]];
}
