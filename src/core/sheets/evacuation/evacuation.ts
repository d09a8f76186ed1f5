import { z } from 'zod';
import { InputError } from '../../circuit/inputError';
import { shopMarks, type ShopMarks } from '../../tables/marks';
import { maybe, positive, sheetHead, type Finding, type SheetAnswer } from '../sheet';

const reading = z.object({ seconds: z.number().min(0).max(1e7), pa: z.number().min(0).max(120_000) });

export const evacuationSheet = z.object({
  ...sheetHead('evacuation'),
  /** Absolute pressure with the pump shut off, from the moment it was. */
  rise: maybe(z.array(reading).max(2000)),
  /** What has to be held below; the shop's where nothing is typed. */
  passPa: maybe(positive),
  /** How long it has to be held. */
  forSeconds: maybe(positive),
});
export type EvacuationSheet = z.infer<typeof evacuationSheet>;

export type EvacuationFinding = Finding<'fewReadings' | 'notLongEnough' | 'passUsual' | 'notDeepEnough'>;

export interface EvacuationAnswer extends SheetAnswer {
  verdict: 'tight' | 'moisture' | 'leak' | null;
  /** The mark that it was held against. */
  passPa: number;
  startPa: number | null;
  endPa: number | null;
  /** Of the first and the last third of the time. */
  earlyPaPerMinute: number | null;
  latePaPerMinute: number | null;
}

/** Fewer readings draw no curve. */
const LEAST = 4;
/** A rise that has slowed to this share levels off: water boils until its vapour holds it; a leak goes on. */
const LEVELS = 0.25;
const GOES_ON = 0.6;

/**
 * The rise of a vacuum once its pump is shut off: held below the mark it is tight, risen and level it is wet, rising on it leaks (reference
 * `safety.md`; the mark is a shop rule). A curve between the two is not told.
 */
export function judgeEvacuation(sheet: EvacuationSheet, marks: ShopMarks = shopMarks({})): EvacuationAnswer {
  const { rise = [], passPa, forSeconds = marks.holds.evacuationSeconds } = sheet;
  const findings: EvacuationFinding[] = [];
  rise.forEach(({ seconds }, at) => {
    if (at > 0 && seconds <= rise[at - 1]!.seconds)
      throw new InputError(
        `rise[${at}].seconds`,
        `${seconds} does not come after ${rise[at - 1]!.seconds}; put the readings in order`,
      );
  });
  const pass = passPa ?? marks.holds.evacuationPa;
  if (passPa === undefined) findings.push({ code: 'passUsual', pa: pass });
  const [first, last] = [rise[0], rise.at(-1)];
  const figures = {
    passPa: pass,
    startPa: first?.pa ?? null,
    endPa: last?.pa ?? null,
    earlyPaPerMinute: null,
    latePaPerMinute: null,
    findings,
  };
  if (!first || !last || rise.length < LEAST) {
    findings.push({ code: 'fewReadings', wanted: LEAST });
    return { ...figures, verdict: null, next: { ask: 'rise' } };
  }
  if (first.pa >= pass) {
    findings.push({ code: 'notDeepEnough', pa: first.pa, pass });
    return { ...figures, verdict: null, next: { ask: 'rise' } };
  }
  const early = slope(rise.slice(0, Math.max(2, Math.ceil(rise.length / 3))));
  const late = slope(rise.slice(-Math.max(2, Math.ceil(rise.length / 3))));
  const told = { ...figures, earlyPaPerMinute: early, latePaPerMinute: late };
  const held = last.seconds - first.seconds;
  if (last.pa < pass) {
    if (held >= forSeconds) return { ...told, verdict: 'tight', next: null };
    findings.push({ code: 'notLongEnough', seconds: held, wanted: forSeconds });
    return { ...told, verdict: null, next: { ask: 'rise' } };
  }
  const share = early > 0 ? late / early : 1;
  if (share <= LEVELS) return { ...told, verdict: 'moisture', next: null };
  return share >= GOES_ON
    ? { ...told, verdict: 'leak', next: null }
    : { ...told, verdict: null, next: { ask: 'rise' } };
}

/** Least squares, Pa a minute. */
function slope(points: readonly z.infer<typeof reading>[]): number {
  const n = points.length;
  const [t, p] = [
    points.reduce((sum, { seconds }) => sum + seconds, 0) / n,
    points.reduce((sum, { pa }) => sum + pa, 0) / n,
  ];
  const over = points.reduce((sum, { seconds, pa }) => sum + (seconds - t) * (pa - p), 0);
  const under = points.reduce((sum, { seconds }) => sum + (seconds - t) ** 2, 0);
  return (60 * over) / under;
}
