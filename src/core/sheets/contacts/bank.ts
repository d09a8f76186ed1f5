import { z } from 'zod';
import { figure, maybe, ohmsShown, positive, thing, type Shown } from '../sheet';

/** What of a contactor is not one contact's drop: which of its poles switch, which side is fed, and what a spare must bear. */

export const poleRow = z.object({
  contactor: thing,
  from: thing,
  to: thing,
  restOhms: maybe(ohmsShown),
  operatedOhms: maybe(ohmsShown),
  /** To the frame or the other conductor of the line, while it rests. */
  fromVolts: maybe(figure),
  toVolts: maybe(figure),
});
export type PoleRow = z.infer<typeof poleRow>;

/** What a contactor has to bear in this place; what is left out asks nothing of a spare. */
export const spareNeeds = z.object({
  amps: maybe(positive),
  dutyShare: maybe(z.number().gt(0).max(1)),
  coilVolts: maybe(positive),
  coil: maybe(z.enum(['AC', 'DC'])),
  poles: maybe(z.number().int().min(1).max(12)),
});
export const spareRow = z.object({ name: thing, ...spareNeeds.shape });
export type SpareNeeds = z.infer<typeof spareNeeds>;
export type Spare = z.infer<typeof spareRow>;

export interface PoleAnswer {
  contactor: string;
  from: string;
  to: string;
  /** `straight` is a link that the coil does not switch; `welded` cannot be told from it by ohms at rest alone. */
  does: 'switched' | 'restsClosed' | 'straight' | 'neverMakes' | null;
  /** End that the line comes in at. */
  line: string | null;
}

/** A closed pole reads no more, an open one no less, ohms. */
const CLOSED_OHMS = 2;
const OPEN_OHMS = 1e5;
/** A side is live from this share of the line's volts, and dead below the lower one. */
const LIVE_SHARE = 0.8;
const DEAD_SHARE = 0.2;

/** A pole by its ohms at rest and operated, and which end is fed by its volts at rest. */
export function tellPole(
  { contactor, from, to, restOhms, operatedOhms, fromVolts, toVolts }: PoleRow,
  leadOhms: number,
  lineVolts: number | undefined,
): PoleAnswer {
  const rest = stateOf(restOhms, leadOhms);
  const operated = stateOf(operatedOhms, leadOhms);
  const does =
    rest === null || operated === null
      ? null
      : rest === 'open'
        ? operated === 'closed'
          ? 'switched'
          : 'neverMakes'
        : operated === 'open'
          ? 'restsClosed'
          : 'straight';
  return { contactor, from, to, does, line: fedEnd({ from, to, fromVolts, toVolts }, lineVolts) };
}

function stateOf(ohms: Shown | undefined, leadOhms: number): 'open' | 'closed' | null {
  if (ohms === undefined) return null;
  if (ohms === 'OL' || ohms >= OPEN_OHMS) return 'open';
  return ohms - leadOhms <= CLOSED_OHMS ? 'closed' : null;
}

/** The end that stays live while the other is dead; of both or neither nothing is said. */
function fedEnd(
  { from, to, fromVolts, toVolts }: Pick<PoleRow, 'from' | 'to' | 'fromVolts' | 'toVolts'>,
  lineVolts: number | undefined,
): string | null {
  if (fromVolts === undefined || toVolts === undefined) return null;
  const [a, b] = [Math.abs(fromVolts), Math.abs(toVolts)];
  const full = lineVolts ?? Math.max(a, b);
  if (full <= 0) return null;
  if (a >= LIVE_SHARE * full && b <= DEAD_SHARE * full) return from;
  if (b >= LIVE_SHARE * full && a <= DEAD_SHARE * full) return to;
  return null;
}

/** Why a spare does not do, or what its label leaves open. */
export type SpareShort = 'amps' | 'duty' | 'coilVolts' | 'coil' | 'poles';
export interface SpareAnswer {
  name: string;
  /** Null while its label leaves something open that is needed, or nobody said what is. */
  fits: boolean | null;
  short: SpareShort[];
  open: SpareShort[];
}

/** A coil runs on what is within this share of its label, either way. */
const COIL_SHARE = 0.1;

/** Whether a spare bears what the place asks of it. */
export function spareFits(needs: SpareNeeds | undefined, spare: Spare): SpareAnswer {
  const short: SpareShort[] = [];
  const open: SpareShort[] = [];
  const hold = <T>(
    what: SpareShort,
    wanted: T | undefined,
    own: T | undefined,
    does: (a: T, b: T) => boolean,
  ) => {
    if (wanted === undefined) return;
    if (own === undefined) open.push(what);
    else if (!does(wanted, own)) short.push(what);
  };
  const atLeast = (wanted: number, own: number) => own >= wanted;
  hold('amps', needs?.amps, spare.amps, atLeast);
  hold('duty', needs?.dutyShare, spare.dutyShare, atLeast);
  hold('poles', needs?.poles, spare.poles, atLeast);
  hold('coil', needs?.coil, spare.coil, (wanted, own) => own === wanted);
  hold(
    'coilVolts',
    needs?.coilVolts,
    spare.coilVolts,
    (wanted, own) => Math.abs(own - wanted) <= COIL_SHARE * wanted,
  );
  const asked = Object.values(needs ?? {}).some((value) => value !== undefined);
  const fits = short.length > 0 ? false : open.length > 0 || !asked ? null : true;
  return { name: spare.name, fits, short, open };
}
