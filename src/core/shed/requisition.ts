import { may, type Role } from '../people/roles';

/** Where something that was asked for stands. */
export const REQUISITION_STATES = ['asked', 'approved', 'refused', 'ordered', 'received'] as const;
export type RequisitionState = (typeof REQUISITION_STATES)[number];

/** What may come next; nothing comes after it was received or refused. */
export const NEXT_STATES: Readonly<Record<RequisitionState, readonly RequisitionState[]>> = {
  asked: ['approved', 'refused'],
  approved: ['ordered', 'refused'],
  ordered: ['received', 'refused'],
  received: [],
  refused: [],
};

export function mayFollow(from: RequisitionState, to: RequisitionState): boolean {
  return NEXT_STATES[from].includes(to);
}

/** Whether somebody of a role may take one to a state: money is a lead's to say yes or no to. */
export function mayStep(role: Role, to: RequisitionState): boolean {
  return to === 'approved' || to === 'refused' ? role === 'lead' : may(role, 'stock');
}

/** Why pieces of a spare came or went. */
export const MOVES = ['used', 'received', 'counted', 'sentBack'] as const;
export type MoveWhy = (typeof MOVES)[number];

/**
 * Pieces that are to be asked for once so many are on the shelf and so many are on their way: up to twice the minimum, nothing while the
 * minimum is there.
 */
export function piecesToAsk({
  stock,
  minimum,
  onTheWay,
}: {
  stock: number;
  minimum: number;
  onTheWay: number;
}): number {
  return stock + onTheWay >= minimum ? 0 : 2 * minimum - stock - onTheWay;
}
