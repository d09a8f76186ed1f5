import type { EntryOf } from '@/core/job/entries';
import { freeChecks } from '@/core/job/freeChecks';
import { proofList, proofStanding, type Proof } from '@/core/job/proofList';
import { keptFigures } from '@/core/job/provedMeasures';
import type { JobState } from '@/core/job/reduceJob';
import { readPastLimits } from '@/core/shed/readPastLimit';
import { calendarDay, siteMoment } from '@/core/units/siteTime';
import { checkWords } from '@/words/en/checks';
import { opinionBy } from '@/words/en/opinion';
import { proofWords } from '@/words/en/proofs';
import { readingWords, type Speaker } from '@/words/en/readings';
import type { Arrival } from '@/words/en/times';
import { pastLimitLines } from '@/words/en/trends';
import { WEATHER_WORDS, WHEN_WORDS } from '@/words/en/when';
import { decisionWords, fittedWords, STILL_WRONG, workWords } from '@/words/en/works';
import type { Outlook } from '@/workers/protocol';
import type { Report, ReportJob, ReportLine, ReportShop } from './report';
import { evidenceLines, pathOf, pointsKey, verdictOf } from './reportEvidence';
import { safetyOf } from './reportSafety';
import { reportSheets } from './reportSheets';

/** A job's report. */
export function buildReport(
  speaker: Speaker,
  job: ReportJob,
  state: JobState,
  outlook: Outlook,
  { timeZone, marks, past }: ReportShop,
  arrivals: ReadonlyMap<string, Arrival> = new Map(),
): Report {
  const day = (iso: string) => siteMoment(iso, timeZone);
  const readings = state.readings.map(({ reading }) => reading);
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
    complaint: complaintText(state),
    codes: state.codes.map(({ key, entry, present }) => ({
      text: `${key} ${entry.body.text}`,
      beside: present ? 'still there' : 'gone',
      tone: present ? 'left' : 'good',
    })),
    ...safetyOf(speaker.model, state, day),
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
    points: pointsKey(speaker, [
      ...state.history.map(({ entry }) => entry.body.reading),
      ...proofs.flatMap((proof) => ('test' in proof ? [proof.test] : [])),
    ]),
    path: pathOf(speaker, state, outlook),
    evidence: evidenceLines(speaker, state, arrivals, timeZone),
    sheets: reportSheets(speaker, readings, marks, past),
    verdict: verdictOf(speaker, state, outlook.diagnosis),
    decision: state.decisions.flatMap((one) => decisionLines(speaker, one, state.opinions.get(one.id))),
    parts: workLines(speaker, state),
    proofs: proofs.map((proof) => proofLine(speaker, proof, state, day)),
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

/** What the complaint was, when it shows and in which weather. */
function complaintText({ complaint, retest, when, weather }: JobState): string {
  const words =
    complaint ?? (retest ? 'None: the machine was looked at again' : 'No words were written down');
  return [
    // Whoever wrote it may have ended the sentence or not.
    words.replace(/\.\s*$/, ''),
    ...when.map((one) => WHEN_WORDS[one]),
    ...(weather ? [`Weather: ${WEATHER_WORDS[weather].toLowerCase()}`] : []),
    '',
  ]
    .join('. ')
    .trim();
}

/** Spares as they read on the bench, and what was done. */
function workLines(speaker: Speaker, { spareTests, fixes, failedFixes }: JobState): ReportLine[] {
  return [
    ...spareTests.map(({ body }): ReportLine => ({
      text: `Spare for ${body.part}, ${body.measure}: ${body.typed}`,
      beside: body.good ? 'as it should' : 'not fitted',
      tone: body.good ? 'good' : 'bad',
    })),
    ...fixes.map(({ id, body, person }): ReportLine => ({
      text: [workWords(speaker, body), ...fittedWords(body)].join(', '),
      ...(failedFixes.has(id) ? { beside: `${person}; ${STILL_WRONG}`, tone: 'left' } : { beside: person }),
    })),
  ];
}

/** One line that was to be shown, with what it read and by whom. */
function proofLine(
  speaker: Speaker,
  proof: Proof,
  state: JobState,
  day: (iso: string) => string,
): ReportLine {
  const shown = state.proofs.get(proof.id);
  const now = proofStanding(proof, state);
  // A reason that was given stands on the paper, also where the rule of today does not take it.
  const left = shown?.body.reason;
  const beside =
    now.state === 'open'
      ? ['not shown', ...(left ? [`left: ${left}`] : [])]
      : now.state === 'signedOff'
        ? [`left: ${now.reason}`]
        : [[now.found, ...(shown ? [`${day(shown.at)}, ${shown.person}`] : [])].filter(Boolean).join(', ')];
  return { text: proofWords(speaker, proof), beside: beside.join('; '), tone: PROOF_TONES[now.state] };
}

const PROOF_TONES = { done: 'good', wrong: 'bad', signedOff: 'left', open: 'left' } as const;

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
