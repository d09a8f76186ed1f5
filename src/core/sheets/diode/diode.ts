import { z } from 'zod';
import {
  maybe,
  ohmsShown,
  sheetHead,
  voltsShown,
  type Finding,
  type SheetAnswer,
  type Shown,
} from '../sheet';

export const diodeSheet = z.object({
  ...sheetHead('diode'),
  forward: maybe(voltsShown),
  reverse: maybe(voltsShown),
  coilOhms: maybe(ohmsShown),
  overShows: maybe(z.enum(['OL', '1', '0'])),
});
export type DiodeSheet = z.infer<typeof diodeSheet>;

export type DiodeFinding = Finding<
  'coilAcross' | 'coilOpen' | 'orBothWays' | 'overRangeInferred' | 'resistorAcross' | 'betweenKinds'
>;

export interface DiodeAnswer extends SheetAnswer {
  verdict: 'good' | 'shorted' | 'open' | 'reversed' | 'hidden' | null;
  kind: 'silicon' | 'schottky' | 'led' | null;
}

/** A meter's test current, amperes (verify per meter; reference section 13). */
const TEST_AMPS = 1e-3;
/** Below this nothing but a short is left, volts. */
const SHORT_VOLTS = 0.05;
/** Forward volts of what conducts one way, by kind: Schottky, silicon, light-emitting. */
const KINDS = [
  { kind: 'schottky', least: 0.1, most: 0.4 },
  { kind: null, least: 0.4, most: 0.45 },
  { kind: 'silicon', least: 0.45, most: 0.85 },
  { kind: null, least: 0.85, most: 1.4 },
  { kind: 'led', least: 1.4, most: 2.6 },
] as const;
/** Two readings this near to each other are one resistance read both ways. */
const ALIKE_SHARE = 0.15;

/**
 * Judges a diode by both directions of a meter's diode test, red on the anode first. A coil still across it shunts the test: healthy,
 * open and missing then read alike, and the answer is that it hides.
 */
export function judgeDiode({ forward, reverse, coilOhms, overShows }: DiodeSheet): DiodeAnswer {
  const findings: DiodeFinding[] = [];
  const answer = (
    verdict: DiodeAnswer['verdict'],
    next: DiodeAnswer['next'],
    kind: DiodeAnswer['kind'] = null,
  ) => ({
    verdict,
    kind,
    findings,
    next,
  });
  const [there, back] = overRange([forward, reverse], overShows, findings);
  const masked = typeof coilOhms === 'number' ? Math.max(coilOhms, 0) * TEST_AMPS : null;
  // A resistance through which a milliampere loses less than a diode holds everything else behind it.
  const hides = masked !== null && masked < KINDS[0].most + SHORT_VOLTS;
  if (hides) {
    findings.push({ code: 'coilAcross', ohms: coilOhms });
    const lifted = [there, back].every(
      (one) => one === 'OL' || (one !== undefined && one > 2 * masked! + SHORT_VOLTS),
    );
    if (there === undefined || back === undefined) return answer('hidden', { ask: 'lift' });
    // It reads as if no coil were there: the coil does not conduct.
    if (lifted) findings.push({ code: 'coilOpen' });
    else if (!(there === 'OL' || back === 'OL')) return answer('hidden', { ask: 'lift' });
    else findings.push({ code: 'coilOpen' });
  }
  if (there === undefined || back === undefined)
    return answer(null, { ask: there === undefined ? 'forward' : 'reverse' });
  if (there === 'OL' && back === 'OL') {
    findings.push({ code: 'orBothWays' });
    return answer('open', null);
  }
  if (there !== 'OL' && back !== 'OL') {
    const [a, b] = [Math.abs(there), Math.abs(back)];
    if (Math.max(a, b) <= SHORT_VOLTS) return answer('shorted', null);
    if (Math.abs(a - b) <= ALIKE_SHARE * Math.max(a, b)) {
      findings.push({ code: 'resistorAcross', ohms: Math.max(a, b) / TEST_AMPS });
      return answer('hidden', { ask: 'lift' });
    }
    // One way through the diode, the other through what lies beside it.
    const kind = kindOf(Math.min(a, b));
    if (
      masked !== null &&
      kind !== undefined &&
      Math.abs(Math.max(a, b) - masked) <= 2 * ALIKE_SHARE * masked
    ) {
      findings.push({ code: 'resistorAcross', ohms: coilOhms });
      return answer(a < b ? 'good' : 'reversed', null, kind);
    }
    findings.push({ code: 'resistorAcross', ohms: Math.max(a, b) / TEST_AMPS });
    return answer(null, { ask: 'lift' });
  }
  const volts = there === 'OL' ? (back as number) : there;
  const kind = kindOf(Math.abs(volts));
  if (kind === undefined) {
    findings.push({ code: 'resistorAcross', ohms: Math.abs(volts) / TEST_AMPS });
    return answer(null, { ask: there === 'OL' ? 'reverse' : 'forward' });
  }
  if (kind === null) findings.push({ code: 'betweenKinds', volts });
  return answer(there === 'OL' ? 'reversed' : 'good', null, kind);
}

/** Undefined where no diode holds so many volts. */
function kindOf(volts: number): DiodeAnswer['kind'] | undefined {
  return KINDS.find(({ least, most }) => volts >= least && volts < most)?.kind;
}

/** What the meter shows when nothing conducts, as it says itself; else 1 or 0 beside a good reading the other way can be nothing else. */
function overRange(
  shown: readonly [Shown | undefined, Shown | undefined],
  overShows: DiodeSheet['overShows'],
  findings: DiodeFinding[],
): [Shown | undefined, Shown | undefined] {
  if (overShows !== undefined)
    return shown.map((one) => (one !== undefined && String(one) === overShows ? 'OL' : one)) as [
      Shown,
      Shown,
    ];
  const [there, back] = shown;
  const conducts = (one: Shown | undefined) =>
    typeof one === 'number' && one >= KINDS[0].least && one < KINDS[2].most;
  const infer = (one: Shown | undefined, other: Shown | undefined): Shown | undefined => {
    if (!conducts(other) || (one !== 0 && one !== 1)) return one;
    findings.push({ code: 'overRangeInferred', shown: one });
    return 'OL';
  };
  const inferred: [Shown | undefined, Shown | undefined] = [infer(there, back), infer(back, there)];
  if (there === 1 && back === 1) {
    findings.push({ code: 'overRangeInferred', shown: 1 });
    return ['OL', 'OL'];
  }
  return inferred;
}
