import { z } from 'zod';
import { judgeDiode } from '../diode/diode';
import {
  maybe,
  mustDiffer,
  mustKnow,
  names,
  ohmsShown,
  sheetHead,
  voltsShown,
  type Finding,
  type SheetAnswer,
} from '../sheet';

export const connectorSheet = z.object({
  ...sheetHead('connector'),
  pins: names(1, 60),
  /** From one end of the lead to the other, plugged on at neither. */
  through: maybe(z.array(z.object({ pin: z.string(), ohms: ohmsShown })).max(60)),
  /** Between two pins of one end, the other end open. */
  between: maybe(z.array(z.object({ from: z.string(), to: z.string(), ohms: ohmsShown })).max(500)),
  leadOhms: maybe(z.number().min(0).max(5)),
  /** A diode in the plug, and where its anode sits. */
  anode: maybe(z.string()),
  cathode: maybe(z.string()),
  forward: maybe(voltsShown),
  reverse: maybe(voltsShown),
});
export type ConnectorSheet = z.infer<typeof connectorSheet>;

export type ConnectorFinding = Finding<'leadsNotKnown' | 'throughDiode' | 'diodeHidden'>;
export type PinVerdict = 'good' | 'high' | 'open';

export interface ConnectorAnswer extends SheetAnswer {
  pins: { pin: string; ohms: number | null; verdict: PinVerdict | null }[];
  /** Pairs that are one where they should be two. */
  shorted: [string, string][];
  diode: 'good' | 'shorted' | 'open' | 'reversed' | null;
  verdict: 'good' | 'bad' | null;
}

/** A sound core of a lead and its two contacts reads less, leads off, ohms (shop rule). */
const THROUGH_OHMS = 0.5;
/** More is no way through. */
const OPEN_OHMS = 1e4;
/** Less between two pins is a short, more is none; between the two it is wet or has something across it. */
const SHORT_OHMS = 10;
const APART_OHMS = 1e6;
/** Leads that nobody has held together read up to this, ohms. */
const LEADS_MOST = 0.5;

/** A plug with its lead, by itself: each core through, no two of them one, and the diode in it both ways. */
export function checkConnector(sheet: ConnectorSheet): ConnectorAnswer {
  const { pins, through = [], between = [], leadOhms, anode, cathode } = sheet;
  const findings: ConnectorFinding[] = [];
  through.forEach(({ pin }, at) => mustKnow(pins, pin, `through[${at}].pin`));
  between.forEach(({ from, to }, at) => {
    mustKnow(pins, from, `between[${at}].from`);
    mustKnow(pins, to, `between[${at}].to`);
    mustDiffer(from, to, `between[${at}]`);
  });
  for (const [field, pin] of Object.entries({ anode, cathode }))
    if (pin !== undefined) mustKnow(pins, pin, field);
  if (leadOhms === undefined && through.length > 0)
    findings.push({ code: 'leadsNotKnown', most: LEADS_MOST });
  const cores = pins.map((pin) => {
    const read = through.findLast((one) => one.pin === pin)?.ohms;
    return { pin, ...coreOf(read, leadOhms) };
  });
  const across = (from: string, to: string) =>
    anode !== undefined &&
    cathode !== undefined &&
    [from, to].every((one) => one === anode || one === cathode);
  const shorted = between.flatMap(({ from, to, ohms }): [string, string][] => {
    if (ohms === 'OL' || ohms >= SHORT_OHMS) {
      // An ohmmeter's few tenths of a volt do not open silicon; some meters' do.
      if (ohms !== 'OL' && ohms < APART_OHMS && across(from, to))
        findings.push({ code: 'throughDiode', from, to });
      return [];
    }
    return [[from, to]];
  });
  const diode = diodeOf(sheet, findings);
  return { pins: cores, shorted, diode, findings, ...settledBy(sheet, cores, shorted, diode) };
}

function coreOf(
  read: number | 'OL' | undefined,
  leadOhms: number | undefined,
): { ohms: number | null; verdict: PinVerdict | null } {
  if (read === undefined) return { ohms: null, verdict: null };
  if (read === 'OL' || read >= OPEN_OHMS) return { ohms: null, verdict: 'open' };
  const [most, least] = [Math.max(read - (leadOhms ?? 0), 0), Math.max(read - (leadOhms ?? LEADS_MOST), 0)];
  if (most <= THROUGH_OHMS) return { ohms: most, verdict: 'good' };
  // What the leads that nobody held together could explain is not said.
  return { ohms: most, verdict: least > THROUGH_OHMS ? 'high' : null };
}

function diodeOf(
  { anode, cathode, forward, reverse }: ConnectorSheet,
  findings: ConnectorFinding[],
): ConnectorAnswer['diode'] {
  if (anode === undefined || cathode === undefined) return null;
  const { verdict } = judgeDiode({
    format: 'spiraxis-sheet',
    version: 1,
    sheet: 'diode',
    forward,
    reverse,
    coilOhms: undefined,
    overShows: undefined,
  });
  if (verdict !== 'hidden') return verdict;
  findings.push({ code: 'diodeHidden' });
  return null;
}

/** The first thing bad is enough; good it is when each core and each pair was read, and the diode where there is one. */
function settledBy(
  { pins, between = [], anode, cathode, forward, reverse }: ConnectorSheet,
  cores: ConnectorAnswer['pins'],
  shorted: ConnectorAnswer['shorted'],
  diode: ConnectorAnswer['diode'],
): Pick<ConnectorAnswer, 'verdict' | 'next'> {
  const bad =
    shorted.length > 0 ||
    cores.some(({ verdict }) => verdict === 'open' || verdict === 'high') ||
    (diode !== null && diode !== 'good');
  if (bad) return { verdict: 'bad', next: null };
  const core = cores.find(({ ohms, verdict }) => verdict === null && ohms === null);
  if (core) return { verdict: null, next: { ask: `through.${core.pin}` } };
  if (cores.some(({ verdict }) => verdict === null)) return { verdict: null, next: { ask: 'leadOhms' } };
  const read = (from: string, to: string) =>
    between.some((one) => (one.from === from && one.to === to) || (one.from === to && one.to === from));
  for (let i = 0; i < pins.length; i++)
    for (let j = i + 1; j < pins.length; j++)
      if (!read(pins[i]!, pins[j]!)) return { verdict: null, next: { from: pins[i]!, to: pins[j]! } };
  if (anode !== undefined && cathode !== undefined && diode === null)
    return {
      verdict: null,
      next:
        forward === undefined
          ? { ask: 'forward' }
          : reverse === undefined
            ? { ask: 'reverse' }
            : { ask: 'lift' },
    };
  return { verdict: 'good', next: null };
}
