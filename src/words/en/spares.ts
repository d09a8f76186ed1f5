import type { Difference, Fit, RatingName, SpareRatings } from '@/core/shed/spares';
import { calendarDay } from '@/core/units/siteTime';
import type { MoveWhy, RequisitionState } from '@/core/shed/requisition';

/** A rating's name in a form and in a sentence, and its unit. */
export const RATING_NAMES: Readonly<Record<RatingName, { name: string; unit: string }>> = {
  volts: { name: 'volts', unit: 'V' },
  current: { name: 'AC or DC', unit: '' },
  ohms: { name: 'ohms at 20 °C', unit: 'Ω' },
  watts: { name: 'watts', unit: 'W' },
  va: { name: 'volt-amperes', unit: 'VA' },
  contactAmps: { name: 'amps of its contacts', unit: 'A' },
  normallyOpen: { name: 'contacts, normally open', unit: '' },
  normallyClosed: { name: 'contacts, normally closed', unit: '' },
  amps: { name: 'amps', unit: 'A' },
  mm2: { name: 'cross-section', unit: 'mm²' },
  seconds: { name: 'seconds', unit: 's' },
  ways: { name: 'ways', unit: '' },
  medium: { name: 'what it is made for', unit: '' },
  kPa: { name: 'highest pressure', unit: 'kPa' },
};

/** A label says 24 V, not 24.0 V. */
const LABEL_DIGITS = 4;

function valueWords(rating: RatingName, value: number | string): string {
  const { unit, name } = RATING_NAMES[rating];
  if (rating === 'medium') return `for ${value}`;
  if (rating === 'kPa') return `to ${Number(value) / 100} bar`;
  if (typeof value === 'string') return value;
  return unit === '' ? `${value} ${name}` : `${Number(value.toPrecision(LABEL_DIGITS))} ${unit}`;
}

/** What a label says: "24 V DC, 31.5 Ω, 2-pin". */
export function ratingsWords(ratings: SpareRatings, fitting: string): string {
  const { volts, current, ...rest } = ratings;
  const supply = [volts === undefined ? '' : `${volts} V`, current ?? ''].filter(Boolean).join(' ');
  const others = (Object.entries(rest) as [RatingName, number | string][]).map(([name, value]) =>
    valueWords(name, value),
  );
  return [supply, ...others, fitting].filter(Boolean).join(', ') || 'nothing said of it';
}

/** How a spare stands against what is wanted: "12 V where 24 V is wanted". */
export function differenceWords({ rating, wanted, has, isMore }: Difference): string {
  const due = valueWords(rating, wanted);
  if (has === null) return `its card does not say ${RATING_NAMES[rating].name}: ${due} is wanted`;
  return isMore
    ? `${valueWords(rating, has)}, more than the ${due} that is needed`
    : `${valueWords(rating, has)} where ${due} is wanted`;
}

/** How plug, thread and ports of another stand against a spare's own; null where they are the same, or nobody wrote any. */
export function fittingWords(own: string, other: string): string | null {
  const [wanted, has] = [own.trim(), other.trim()];
  if (wanted === '' || wanted.toLowerCase() === has.toLowerCase()) return null;
  return has === ''
    ? `its card does not say plug, thread or ports: ${wanted} is wanted`
    : `${has} where ${wanted} is wanted`;
}

export const FIT_WORDS: Readonly<Record<Fit, string>> = {
  fits: 'fits by its ratings',
  askLabel: 'read its label first',
  doesNot: 'does not fit',
};

export const STATE_WORDS: Readonly<Record<RequisitionState, string>> = {
  asked: 'asked for',
  approved: 'approved',
  refused: 'refused',
  ordered: 'ordered',
  received: 'received',
};
/** What is pressed to bring one there. */
export const STEP_WORDS: Readonly<Record<RequisitionState, string>> = {
  asked: 'Ask',
  approved: 'Approve',
  refused: 'Refuse',
  ordered: 'Ordered',
  received: 'Received',
};

export const MOVE_WORDS: Readonly<Record<MoveWhy, string>> = {
  used: 'fitted',
  received: 'received',
  counted: 'counted',
  sentBack: 'bad, sent back',
};

/** When something ordered is to come, seen from a day: "due 19 Dec 2026", "2 days late". */
export function dueWords(due: string | null, today: string): { words: string; late: boolean } {
  if (due === null) return { words: 'no day said', late: false };
  const days = Math.round((Date.parse(`${due}T12:00:00Z`) - Date.parse(`${today}T12:00:00Z`)) / 86_400_000);
  if (days < 0) return { words: `${-days} ${days === -1 ? 'day' : 'days'} late`, late: true };
  if (days === 0) return { words: 'due today', late: false };
  return { words: `due ${calendarDay(due)}`, late: false };
}

/** Spares of the same kind that do not fit. */
export function otherWords(count: number): string {
  return count === 1
    ? 'One other of its kind, which does not fit'
    : `${count} others of its kind, which do not fit`;
}
