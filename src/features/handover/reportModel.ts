import type { JobPast } from '@/core/sheets/onCircuit/jobSheet';
import { readPastLimits } from '@/core/shed/readPastLimit';
import { pastLimitLines } from '@/words/en/trends';
import type { ShopMarks } from '@/core/tables/marks';
import type { Setup, Test } from '@/core/circuit/schema';
import { nodesOfTest } from '@/core/circuit/testPlace';
import type { EntryOf } from '@/core/job/entries';
import { freeChecks } from '@/core/job/freeChecks';
import { proofList, proofStanding } from '@/core/job/proofList';
import { keptFigures } from '@/core/job/provedMeasures';
import type { JobState } from '@/core/job/reduceJob';
import { ledgerStanding, safetyDefects } from '@/core/job/rules/ledgerStanding';
import { chooseLane, complaintLane } from '@/core/path/chooseLane';
import { waysOf } from '@/core/path/lane';
import type { State } from '@/core/path/standing';
import { calendarDay, siteMoment } from '@/core/units/siteTime';
import { pointTitle } from '@/words/en/energies';
import { defectHarm } from '@/words/en/ledger';
import { checkWords } from '@/words/en/checks';
import { opinionBy } from '@/words/en/opinion';
import { decisionWords, fittedWords, STILL_WRONG, workWords } from '@/words/en/works';
import { WEATHER_WORDS, WHEN_WORDS } from '@/words/en/when';
import { writtenWords, type Arrival } from '@/words/en/times';
import type { Outlook } from '@/workers/protocol';
import { proofWords } from '@/words/en/proofs';
import { evidenceWords, badWords, provedWords, whyWords } from '@/words/en/findings';
import { shareWords } from '@/words/en/verdict';
import { keptTraceWords } from '@/words/en/traces';
import { partWords, pointName, quantity, readingWords, type Speaker } from '@/words/en/readings';

import { reportSheets, type ReportSheetPart } from './reportSheets';

/** One line of the report, with what stands beside it. */
export interface ReportLine {
  text: string;
  beside?: string;
  tone?: 'good' | 'bad' | 'left';
}

/** A job's report as plain words: the screen, the print and the PDF show the same. */
export interface Report {
  number: number;
  title: string;
  machine: string;
  function: string;
  person: string;
  opened: string;
  closed: string | null;
  complaint: string;
  codes: ReportLine[];
  /** Guards that are out of action by something left in the machine. */
  defects: ReportLine[];
  /** What was closed, how and by whom, and how it was proved dead. */
  madeSafe: ReportLine[];
  /** Of these, what is closed still. */
  safety: ReportLine[];
  /** What was seen on the machine that was not good. */
  found: ReportLine[];
  /** What was put in for a test, or found in, and how it was shown to be out. */
  putIn: ReportLine[];
  /** What the numbers of the points stand for: "3 is K4:14". */
  points: string | null;
  path: { name: string; state: State; turns: number; load: boolean }[];
  evidence: ReportLine[];
  /** Sheets that were worked on. */
  sheets: ReportSheetPart[];
  verdict: { headline: string; why: string[]; share: string | null };
  decision: ReportLine[];
  parts: ReportLine[];
  proofs: ReportLine[];
  /** What whoever drives it is told. */
  toDriver: string | null;
  left: ReportLine[];
  baselines: ReportLine[];
  retest: string | null;
}

export const NOTICE =
  'This report says what was read and what it means. Local codes, the machine’s own manual and licensed practice come first. If this text differs from them, follow them. If you are not sure, stop.';

export interface ReportJob {
  number: number;
  title: string;
  machineCode: string;
  machineName: string;
  functionName: string;
  person: string | null;
  openedAt: string;
}

/** What a report takes from the shop: the clock its times are on, and what readings are held against. */
export interface ReportShop {
  timeZone: string;
  marks: ShopMarks;
  past: JobPast;
}

/** A job's report. */
export function buildReport(
  speaker: Speaker,
  job: ReportJob,
  state: JobState,
  outlook: Outlook,
  { timeZone, marks, past }: ReportShop,
  arrivals: ReadonlyMap<string, Arrival> = new Map(),
): Report {
  const { diagnosis, standings } = outlook;
  const day = (iso: string) => siteMoment(iso, timeZone);
  const { verdict, suspects } = diagnosis;
  const sinceFix = new Set(
    state.readings
      .slice(Math.min(Infinity, ...state.mended.map(({ from }) => from)))
      .map(({ entry }) => entry.id),
  );
  const counted = new Set(state.readings.map(({ entry }) => entry.id));
  /** Readings that the verdict stands on, and what was read besides the proofs. */
  const told = ({ entry, superseded }: JobState['history'][number]) =>
    superseded || counted.has(entry.id) || entry.body.check === undefined;
  const isAfterFix = ({ id, body }: EntryOf<'reading'>) =>
    sinceFix.has(id) || (body.phase !== undefined && !counted.has(id));
  const readings = state.readings.map(({ reading }) => reading);
  const lead = suspects[0];
  const { parts } = speaker.model.compiled;
  const named = verdict.state === 'name' ? verdict.part : null;
  const complaint = complaintLane(speaker.lanes, readings);
  const withPart = named
    ? speaker.lanes.lanes.flatMap(waysOf).filter((one) => onLane(speaker, one, named))
    : [];
  const lane =
    withPart.find((one) => one === complaint) ??
    withPart[0] ??
    complaint ??
    chooseLane(speaker.lanes, { asked: [], standings });
  const { handOver } = state;
  const proofs = proofList(speaker.model, state);
  return {
    number: job.number,
    title: job.title,
    machine: `${job.machineCode} ${job.machineName}`,
    function: job.functionName,
    person: job.person ?? 'nobody yet',
    opened: day(job.openedAt),
    closed: handOver ? day(handOver.at) : null,
    complaint: [
      // Whoever wrote it may have ended the sentence or not.
      (
        state.complaint ??
        (state.retest ? 'None: the machine was looked at again' : 'No words were written down')
      ).replace(/\.\s*$/, ''),
      ...state.when.map((one) => WHEN_WORDS[one]),
      ...(state.weather ? [`Weather: ${WEATHER_WORDS[state.weather].toLowerCase()}`] : []),
      '',
    ]
      .join('. ')
      .trim(),
    codes: state.codes.map(({ key, entry, present }) => ({
      text: `${key} ${entry.body.text}`,
      beside: present ? 'still there' : 'gone',
      tone: present ? 'left' : 'good',
    })),
    defects: safetyDefects(speaker.model, state).map((defect) => ({
      text: `Safety defect: ${defect.item}${defect.found ? ', found in the machine' : ''}`,
      beside: defectHarm(defect),
      tone: 'bad',
    })),
    madeSafe: [
      ...state.safetyTrail.flatMap((entry) => safetyLine(entry, day(entry.at))),
      ...(state.wasMadeSafe || !state.safetyTrail.some(({ type }) => type === 'isolation')
        ? []
        : [NOT_SIGNED]),
    ],
    safety: [...state.locks.values()].flat().map(({ body, person }) => ({
      text: `${pointTitle(body.point)}${body.lock ? `, lock ${body.lock}` : ''}`,
      beside: person,
      tone: 'left' as const,
    })),
    found: freeChecks(speaker.model).flatMap((check): ReportLine[] => {
      const seen = state.looked.get(check.id);
      if (seen?.body.finding !== 'bad') return [];
      const [what, how] = checkWords(speaker, check);
      return [
        {
          text: `${what}, not good (wanted: ${how})${seen.body.words ? `: ${seen.body.words}` : ''}`,
          beside: `${day(seen.at)}, ${seen.person}`,
          tone: 'bad',
        },
      ];
    }),
    putIn: state.ledger.map((line): ReportLine => {
      const { entry, out } = line;
      const standing = ledgerStanding(speaker.model, line, state);
      return {
        text: `${entry.body.item}${entry.body.found ? ', found in the machine' : ''}`,
        beside:
          out === null
            ? entry.body.kind === 'lifted'
              ? 'still off'
              : 'still in'
            : `${entry.body.kind === 'lifted' ? 'back on' : 'out'}: ${out.entry.person}${standing.state === 'shown' ? ('second' in standing.by ? `, seen by ${standing.by.second}` : ', shown by a reading') : ', not shown'}`,
        tone: standing.state === 'shown' ? 'good' : 'bad',
      };
    }),
    points: pointsKey(speaker, [
      ...state.history.map(({ entry }) => entry.body.reading),
      ...proofs.flatMap((proof) => ('test' in proof ? [proof.test] : [])),
    ]),
    path: lane
      ? [...lane.feed, lane.load, ...lane.back].map((step) => ({
          name: parts[step.part]!.part.ref,
          state: standings[step.part]!.state,
          turns: standings[step.part]!.turns,
          load: step === lane.load,
        }))
      : [],
    // What a proof read stands with the proofs.
    evidence: [
      ...state.history.filter(told).map(({ entry, superseded }) => ({
        text: `${readingWords(speaker, entry.body.reading)}${apart(entry.body.reading.setup)}`,
        beside: `${writtenWords(entry.at, arrivals.get(entry.id), timeZone)}, ${entry.person}${superseded ? ', taken back' : isAfterFix(entry) ? ', after the fix' : ''}${entry.body.instrument ? ', by wire' : ''}`,
        ...(superseded ? { tone: 'left' as const } : {}),
      })),
      ...state.traces.map(({ id, at, person, body }) => ({
        text: `Trace of ${partWords(speaker, body.part)}: ${keptTraceWords(speaker.model, body)}`,
        beside: `${writtenWords(at, arrivals.get(id), timeZone)}, ${person}${body.phase ? ', after the fix' : ''}`,
      })),
    ],
    sheets: reportSheets(speaker, readings, marks, past),
    verdict: {
      headline:
        verdict.state === 'name' && lead
          ? `${partWords(speaker, verdict.part)} ${provedWords(verdict.fault)}: ${badWords(speaker, suspects, verdict.part)}`
          : verdict.state === 'noFault'
            ? 'Nothing wrong was found'
            : verdict.state === 'unexplained'
              ? 'No fault on the drawing fits these readings'
              : 'Not proved',
      why: lead
        ? [
            `For: ${evidenceWords(speaker, lead.for, readings)}`,
            `Against: ${evidenceWords(speaker, lead.against, readings)}`,
            ...(verdict.state === 'name' ? [] : [whyWords(speaker, verdict, readings)]),
          ]
        : [whyWords(speaker, verdict, readings)],
      share: verdict.state === 'name' ? shareWords(verdict.share) : null,
    },
    decision: state.decisions.flatMap((one) => decisionLines(speaker, one, state.opinions.get(one.id))),
    parts: [
      ...state.spareTests.map(({ body }): ReportLine => ({
        text: `Spare for ${body.part}, ${body.measure}: ${body.typed}`,
        beside: body.good ? 'as it should' : 'not fitted',
        tone: body.good ? 'good' : 'bad',
      })),
      ...state.fixes.map(({ id, body, person }): ReportLine => ({
        text: [workWords(speaker, body), ...fittedWords(body)].join(', '),
        ...(state.failedFixes.has(id)
          ? { beside: `${person}; ${STILL_WRONG}`, tone: 'left' }
          : { beside: person }),
      })),
    ],
    proofs: proofs.map((proof) => {
      const shown = state.proofs.get(proof.id);
      const now = proofStanding(proof, state);
      // A reason that was given stands on the paper, also where the rule of today does not take it.
      const left = state.proofs.get(proof.id)?.body.reason;
      const tone = ({ done: 'good', wrong: 'bad', signedOff: 'left', open: 'left' } as const)[now.state];
      const beside =
        now.state === 'open'
          ? ['not shown', ...(left ? [`left: ${left}`] : [])].join('; ')
          : now.state === 'signedOff'
            ? `left: ${now.reason}`
            : [now.found, ...(shown ? [`${day(shown.at)}, ${shown.person}`] : [])].filter(Boolean).join(', ');
      return { text: proofWords(speaker, proof), beside, tone };
    }),
    toDriver: handOver?.body.note || null,
    left: [
      ...(handOver?.body.left ?? []).map((text): ReportLine => ({ text, tone: 'left' })),
      ...pastLimitLines(speaker, readPastLimits(speaker.model, state, marks)).map((line): ReportLine => ({
        text: `Past its limit: ${line}`,
        tone: 'left',
      })),
      ...state.codes
        .filter(({ present }) => present)
        .map(({ key, entry }): ReportLine => ({
          text: `Code ${key} remains: ${entry.body.text}`,
          tone: 'left',
        })),
    ],
    baselines: keptFigures(state).map(({ reading }) => ({ text: readingWords(speaker, reading) })),
    retest: handOver?.body.retest ? calendarDay(handOver.body.retest) : null,
  };
}

const NOT_SIGNED: ReportLine = { text: 'The plan was not signed.', tone: 'bad' };

/** How a point was closed, and how it was proved. */
function isolationLine({ body, person }: EntryOf<'isolation'>, when: string): ReportLine {
  const released = body.released ? `, ${body.released}` : '';
  return {
    text: `${[pointTitle(body.point), body.how].filter(Boolean).join(': ')}${body.lock ? `, lock ${body.lock}` : ''}${released}, ${person}, ${when}`,
    beside: body.proved
      ? `proved dead: ${body.proved.work.map(({ from, to, measured }) => `${from} to ${to} ${quantity('volts', measured.value)}`).join(', ')}${body.proved.meter ? `, ${body.proved.meter}` : ''}`
      : (body.tried ?? ''),
  };
}

/** A point closed, the plan signed, a point opened for a test, or a lock that somebody else than its owner took off. */
function safetyLine(entry: JobState['safetyTrail'][number], when: string): ReportLine[] {
  if (entry.type === 'isolation') return [isolationLine(entry, when)];
  const { person, body } = entry;
  const beside = `${person}${body.second ? ` beside ${body.second}` : ''}, ${when}`;
  if (entry.type === 'madeSafe') return [{ text: 'Signed as made safe', beside }];
  const { point, owner, reason, setup } = entry.body;
  // That locks come off when the work is done is told by the proofs.
  if (owner === undefined && setup === undefined) return [];
  const title = pointTitle(point);
  const text =
    owner === undefined
      ? `${title} opened for a test: ${reason}`
      : `Lock of ${owner} on ${title} taken off: ${reason}`;
  return [{ text, beside, tone: 'left' }];
}

/** What the numbered points of these tests are called on the machine; null where none has a number. */
function pointsKey(speaker: Speaker, tests: readonly Test[]): string | null {
  const names = new Set(tests.flatMap((test) => (test.kind === 'amps' ? [] : nodesOfTest(test))));
  const key = [...names]
    .map((node) => ({ node, label: pointName(speaker, node) }))
    .filter(({ node, label }) => /^\d+$/.test(label) && label !== node)
    .sort((a, b) => Number(a.label) - Number(b.label))
    .map(({ node, label }) => `${label} is ${node}`);
  return key.length > 0 ? `Points: ${key.join(', ')}.` : null;
}

function onLane(speaker: Speaker, lane: Speaker['lanes']['lanes'][number], ref: string): boolean {
  const index = speaker.model.compiled.partIndex.get(ref);
  return [...lane.feed, lane.load, ...lane.back].some(({ part }) => part === index);
}

function apart({ pulled, isolated }: Setup): string {
  const off = [...(pulled ?? []), ...(isolated ?? [])];
  return off.length > 0 ? ` (${off.join(', ')} out)` : '';
}

/** What was decided and why, what was cleared first, and the lead's word on it. */
function decisionLines(
  speaker: Speaker,
  decision: EntryOf<'decision'>,
  opinion: EntryOf<'opinion'> | undefined,
): ReportLine[] {
  const { person, body } = decision;
  const { says, note } = opinion?.body ?? {};
  return [
    {
      text: [decisionWords(speaker, body), ...(body.why ? [body.why] : [])].join(': '),
      beside: [
        person,
        ...(body.minutes === null ? [] : [`${body.minutes} min`]),
        ...(body.cost === null ? [] : [`parts ${body.cost}`]),
      ].join(', '),
    },
    ...body.cleared.map((text): ReportLine => ({ text: `Cleared first: ${text}`, tone: 'good' })),
    ...(body.against ? [{ text: `Against the count: ${body.against}`, tone: 'left' as const }] : []),
    ...(opinion
      ? [
          {
            text: `${says === 'approve' ? 'Approved' : 'Sent back'}${note ? `: ${note}` : ''}`,
            beside: opinionBy(opinion, decision),
          },
        ]
      : []),
  ];
}
