import type { FunctionsAnswer } from '@/core/sheets/functions/functions';
import type { NeedsAnswer } from '@/core/sheets/needs/needs';
import type { OutputsAnswer, OutputsFinding } from '@/core/sheets/outputs/outputs';
import { SUPPLY, type InterlocksAnswer, type InterlocksFinding } from '@/core/sheets/interlocks/interlocks';
import type { SealFinding } from '@/core/sheets/bubbles/seal';
import type { SheetAnswer } from '@/core/sheets/sheet';
import type { Bearing } from '@/core/sheets/onCircuit/bearing';
import type { SealAnswer } from '@/core/sheets/onCircuit/cylindersSheet';
import type { DropOfJob } from '@/core/sheets/onCircuit/dropSheet';
import type { JobSheet, SheetRow } from '@/core/sheets/onCircuit/jobSheet';
import type { TimelineAnswer } from '@/core/sheets/onCircuit/timelineSheet';
import type { WindingPairAnswer } from '@/core/sheets/onCircuit/windingsSheet';
import type { SheetVerdicts } from '@/core/sheets/onCircuit/verdicts';
import type { Reading } from '@/core/circuit/schema';
import type { Suspect } from '@/core/diagnosis/suspects';
import { findingWords, needWords } from './benchSheets';
import { quantity, type Speaker } from './readings';
import { columnWords, rowTitle, sheetVerdictWords, valveName, verdictTone } from './sheets';
import { actuationFound } from './switching';
import { windingsFound } from './windings';

/** Lines, or suspects, that are told one by one; of more only how many. */
const MOST_TOLD = 6;
/** Parts of a list that are told by name: who stands at the machine looks for names, not for a number. */
const MOST_NAMED = 12;

const NOTHING_FLOWS =
  'Next to nothing flows: that nothing is lost on the way proves nothing of it. Find out first why its load does not draw.';
const MORE_FLOWS = 'More current than drawn would do the same: clamp it before that place is called bad.';
const FLOW_NOT_KNOWN =
  'Nothing bad in what was read, but whether the load draws its current is not known: say whether it works, or clamp it. Little is lost where little flows.';

/** What was found, in a sentence or two: the first thing on the sheet. `weighed` is what all readings of the job make of its parts. */
export function sheetFoundWords(
  speaker: Speaker,
  sheet: JobSheet,
  weighed: readonly Weighed[] = [],
): string[] {
  const titleOf = (row: SheetRow) => rowTitle(speaker, sheet, row);
  const bad = sheet.rows.filter(({ verdict }) => verdictTone(verdict) === 'bad');
  const watch = sheet.rows.filter(({ verdict }) => verdictTone(verdict) === 'watch');
  const read = sheet.rows.some(({ cells }) => cells.some((cell) => cell?.value !== null && cell !== null));
  if (!read) return ['Nothing is read yet.'];
  if (sheet.name === 'outputs') return outputsFound(sheet.answers[0]!);
  if (sheet.name === 'functions') return functionsFound(sheet, weighed);
  if (sheet.name === 'interlocks') return interlocksFound(sheet);
  if (sheet.name === 'needs') return needsFound(sheet);
  if (sheet.name === 'timeline') return timelineFound(sheet, titleOf);
  if (sheet.name === 'cylinders') return cylindersFound(sheet);
  if (sheet.name === 'actuation') return actuationFound(sheet, speaker.gaugeUnit);
  if (sheet.name === 'conductors') return conductorsFound(sheet);
  if (sheet.name === 'windings') return windingsFound(sheet.answers as WindingPairAnswer[]);
  const rows = [...bad, ...watch];
  const lines = [...new Set(rows.map(({ verdict }) => verdict))].map((verdict) => {
    const alike = rows.filter((row) => row.verdict === verdict).map(titleOf);
    return `${named(alike, MOST_TOLD)}: ${sheetVerdictWords(sheet.name, verdict)}.`;
  });
  const flow = sheet.name === 'drop' ? flowWords(sheet.answers[0] as DropOfJob, rows, rows.length > 0) : [];
  if (lines.length > 0) return [...shared(sheet), ...lines, ...flow, ...liesOnWords(sheet)];
  if (flow.length > 0) return flow;
  const open = sheet.rows.filter(({ verdict }) => verdict === null || verdict === 'carries').length;
  return [
    open > 0 ? 'Nothing bad in what was read. The rest is not known yet.' : 'All of it is as it should be.',
  ];
}

/** What the current through it makes of a way that was read. */
function flowWords({ flows }: DropOfJob, rows: readonly SheetRow[], losesTooMuch: boolean): string[] {
  if (losesTooMuch) return rows.some(({ verdict }) => verdict === 'mayDrawMore') ? [MORE_FLOWS] : [];
  if (flows === null) return [FLOW_NOT_KNOWN];
  return flows ? [] : [NOTHING_FLOWS];
}

const SHARED: Readonly<Partial<Record<SheetVerdicts['proofChain'], string>>> = {
  on: 'More than one is live at rest: look first at what they share, the return of their loads and what feeds them.',
  output: 'More than one gives too little: look first at the supply that they share.',
  unfed: 'Nothing comes to more than one: look first at the feed that their loads share.',
};

/** What several outputs do alike lies sooner in what they share than in each of them. */
function shared({ name, rows }: JobSheet): string[] {
  if (name !== 'proofChain') return [];
  return Object.entries(SHARED).flatMap(([verdict, words]) =>
    rows.filter((row) => row.verdict === verdict).length > 1 ? [words] : [],
  );
}

/** As many as are read in one go, and how many there are besides. */
function firstOf(lines: readonly string[]): string[] {
  const more = lines.length - MOST_TOLD;
  return more > 0 ? [...lines.slice(0, MOST_TOLD), `And ${more} more.`] : [...lines];
}

/** Pairs that leak, then those to be watched; else how far the sheet has come. */
function conductorsFound({ rows, columns, verdicts = [] }: JobSheet): string[] {
  const pairs = (wanted: string) =>
    rows.flatMap(({ name }, r) =>
      verdicts[r]!.flatMap((verdict, c) => (verdict === wanted ? [`${name} and ${columns[c]!}`] : [])),
    );
  const [bad, watch] = [pairs('bad'), pairs('watch')];
  const lines = [
    ...bad.map((pair) => `Between ${pair} it leaks.`),
    ...watch.map((pair) => `Between ${pair}: to be watched.`),
  ];
  if (lines.length > 0) return firstOf(lines);
  const open = rows.some(({ cells }) => cells.some((cell) => cell !== null && cell.value === null));
  return [open ? 'Nothing leaks of what was read. The rest is not known yet.' : 'No conductor leaks.'];
}

function liesOnWords({ liesOn = [] }: JobSheet): string[] {
  return liesOn.length > 0 && liesOn.length <= MOST_TOLD
    ? [`On all that leaks lies ${liesOn.join(', ')}.`]
    : [];
}

const SEALS: Readonly<Record<SealFinding, string>> = {
  tight: 'its piston is tight at both ends. In between it is not proved.',
  rodLipOrCapBore:
    'air passes at the retracted end only: the lip towards the rod, or the bore worn near the cap.',
  capLipOrRodBore:
    'air passes at the extended end only: the lip towards the cap, or the bore worn near the rod.',
  failed: 'air passes at both ends: the seal has failed, or the bore is scored.',
};

const ONLY_THE_PORT =
  'That counts with the piston at that end, and for what comes out of the cylinder itself: out of the line it is the valve.';

/** What both ends of each piston say; while it moves bubbles are the air that it pushes out. */
function cylindersFound({ answers }: JobSheet): string[] {
  const told = (answers as unknown as SealAnswer[]).flatMap(({ cylinder, seal }) =>
    seal ? [`${cylinder}: ${SEALS[seal]}`] : [],
  );
  if (told.length === 0)
    return ['One end alone says nothing of the other. Bubbles while it moves are normal.'];
  const passes = (answers as unknown as SealAnswer[]).some(({ seal }) => seal !== null && seal !== 'tight');
  return passes ? [...told, ONLY_THE_PORT] : told;
}

/** What each valve lacks, or has so far; of a valve that nothing was read of nothing is said. */
function needsFound({ rows, answers }: JobSheet): string[] {
  const valves = [...new Set(rows.map(({ name }) => name))];
  return valves.flatMap((valve, at) => {
    if (rows.every(({ name, cells }) => name !== valve || (cells[0]?.value ?? null) === null)) return [];
    const answer = answers[at] as NeedsAnswer;
    const { missing, has, findings, medium } = answer;
    const said = (needs: NeedsAnswer['has']) => needs.map((need) => needWords(need, medium));
    const told = findings.filter(({ code }) => code !== 'neededNotKnown').map(findingWords);
    const named = valveName(valve);
    if (missing.length > 0) return [`${named} lacks ${said(missing).join(' and ')}.`, ...told];
    const known = has.length > 0 ? ` It has ${said(has).join(', ')}.` : '';
    return [
      answer.next === null ? `${named} lacks nothing of what was read.` : `${named}: not known yet.${known}`,
      ...told,
    ];
  });
}

const TOLD_OF_OUTPUTS: readonly string[] = [
  'loadMayHold',
  'heldDown',
  'heldUp',
  'fieldDead',
  'fieldLive',
  'lowSupply',
] satisfies OutputsFinding['code'][];

function outputsFound(answer: SheetAnswer): string[] {
  const { cause, of, findings } = answer as OutputsAnswer;
  const more = findings.filter(({ code }) => TOLD_OF_OUTPUTS.includes(code)).map(findingWords);
  if (cause !== null) return [outputsCauseWords(cause, of), ...more];
  return more.length > 0 ? more : ['Not known yet: what was read fits more than one cause.'];
}

/** What an output matrix comes to, with the outputs that it is about. */
export function outputsCauseWords(cause: string, of: readonly string[]): string {
  const words = CAUSES[cause] ?? cause;
  if (words.endsWith('.')) return words;
  return of.length > 0 ? `${words}: ${of.join(', ')}.` : `${words}.`;
}

/** As many of a list by name as are read in one go, and how many there are besides; names with a comma of their own are kept apart by more. */
function named(names: readonly string[], most = MOST_NAMED): string {
  const more = names.length - most;
  const told = more > 1 ? names.slice(0, most) : names;
  const list = told.join(told.some((name) => name.includes(',')) ? '; ' : ', ');
  return more > 1 ? `${list} and ${more} more` : list;
}

type Weighed = Pick<Suspect, 'part' | 'share'>;

/** By their share of the doubt; those beside each other that have the same, or none, stay as they stand. */
function byDoubt(parts: readonly string[], weighed: readonly Weighed[]): string[] {
  const shareOf = (part: string) =>
    weighed.reduce((sum, one) => (one.part === part ? sum + one.share : sum), 0);
  return parts
    .map((part) => ({ part, share: shareOf(part) }))
    .sort((one, two) => two.share - one.share)
    .map(({ part }) => part);
}

function functionsFound({ answers }: JobSheet, weighed: readonly Weighed[]): string[] {
  const { suspect, cleared, findings } = answers[0] as FunctionsAnswer;
  const codes = findings.map(({ code }) => code);
  if (codes.includes('moreThanOne'))
    return [
      'Nothing by itself stops all that fails and leaves all that works: more than one thing is wrong, or one was tried wrongly.',
    ];
  // One doubt on one screen is told in one order.
  const names = byDoubt(
    suspect.map(({ part }) => part),
    weighed,
  );
  const clear = cleared.length > 0 ? [`Cleared by what works: ${named(cleared)}.`] : [];
  if (codes.includes('nothingFails')) return ['Nothing fails so far.', ...clear];
  return [`Left in doubt, each could stop all that fails: ${named(names)}.`, ...clear];
}

/** The first wire that is not as it should be, and when: what comes after it follows from it. */
function timelineFound(sheet: JobSheet, titleOf: (row: SheetRow) => string): string[] {
  const { first } = sheet.answers[0] as TimelineAnswer;
  if (!first)
    return [
      sheet.next
        ? 'No difference in what was read so far.'
        : 'Every wire carries what it should, moment by moment.',
    ];
  const row = sheet.rows[first.row]!;
  const { value, expected } = row.cells[first.column]!;
  const said = (one: Reading['value'] | null) => quantity('volts', Math.abs(Number(one)));
  return [
    `First difference, ${columnWords(sheet.columns[first.column]!)}: ${titleOf(row)} carries ${said(value)} where ${said(expected)} should stand.`,
    'What differs later may only follow from it.',
  ];
}

const OF_SUPPLY: readonly string[] = ['noSupply', 'lowSupply'] satisfies InterlocksFinding['code'][];

/** What stands where the chain begins, then the first loss on the way, what it may lie at, or how far it is known to be fed. */
function interlocksFound({ answers, rows }: JobSheet): string[] {
  const { firstLoss, suspect, findings, next } = answers[0] as InterlocksAnswer;
  const supply = findings.filter(({ code }) => OF_SUPPLY.includes(code)).map(findingWords);
  if (firstLoss) {
    const ahead = rows.find(({ name }) => name === firstLoss.name)?.ahead;
    const where = ahead ? `${firstLoss.name}, or ${ahead.join(', ')} ahead of it,` : firstLoss.name;
    const open = rows.some(({ name, verdict }) => name === firstLoss.name && verdict === 'doubt');
    return [
      ...supply,
      `${where} loses ${quantity('volts', firstLoss.volts)}: the first on the way that does not pass them on.`,
      ...(open ? [`${firstLoss.name} closes at its pressure: read that before it is called bad.`] : []),
    ];
  }
  if (suspect.length > 0) return [...supply, `Lost at one of ${suspect.join(', ')}.`];
  if (supply.length > 0) return supply;
  if (typeof next === 'object' && next !== null && 'after' in next && next.after === SUPPLY)
    return ['What stands where the chain begins is not read yet: without that nothing behind it is judged.'];
  return rows.at(-1)!.verdict === 'good' ? ['The whole chain is fed.'] : ['No loss in what was read.'];
}

const CAUSES: Readonly<Record<string, string>> = {
  healthy: 'Every output does what it is told, and no other.',
  deadSource: 'No supply at the controller.',
  openSensorLoop: 'The sensor loop is open.',
  deadMaster: 'The master does not come on.',
  deadModule: 'A whole module is dead',
  deadOutput: 'One output is dead',
  crossed: 'Two outputs are crossed, or live together',
  leaking: 'An output leaks while nobody commands it',
  ghost: 'Volts that any load takes away: coupled in, no fault',
  selector: 'The selector commands another output than it says',
  openCommon: 'The common of the loads is open.',
};

/** What in an output's run does not bear what its load draws, in a sentence. */
export function bearingWords(found: Bearing): string {
  const { part } = found;
  switch (found.code) {
    case 'fuseTooSmall':
      return `${part} carries ${quantity('amps', found.amps)} while this is on: ${quantity('amps', found.rated)} does not hold that for good.`;
    case 'fuseAtInrush':
      return `${part}, ${quantity('amps', found.rated)}, may go in the moment that the load draws ${quantity('amps', found.amps)}.`;
    case 'limitTooSmall':
      return `${part} gives ${quantity('amps', found.rated)} at most, and its load draws ${quantity('amps', found.amps)} at first.`;
    case 'labelNotSaid':
      return `Nobody said what ${part}’s label says: whether it bears is not known.`;
    case 'inrushNotKnown':
      return `What ${part} draws before its gap is closed is not known: read it from the label before fuse and contact are called good for it.`;
  }
}
