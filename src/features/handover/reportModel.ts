import type { Setup } from '@/core/circuit/schema';
import { proofList, proofStanding } from '@/core/job/proofList';
import type { JobState } from '@/core/job/reduceJob';
import { safetyDefects } from '@/core/job/rules/ledgerStanding';
import { chooseLane } from '@/core/path/layoutPath';
import type { State } from '@/core/path/standing';
import { siteMoment } from '@/core/units/siteTime';
import { pointTitle } from '@/words/en/energies';
import { writtenWords, type Arrival } from '@/words/en/times';
import type { Outlook } from '@/workers/protocol';
import { proofWords } from '@/words/en/proofs';
import { evidenceWords, faultWords } from '@/words/en/findings';
import { shareWords, verdictWhy } from '@/words/en/verdict';
import { partWords, quantity, readingWords, type Speaker } from '@/words/en/readings';

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
  safety: ReportLine[];
  path: { name: string; state: State; turns: number; load: boolean }[];
  evidence: ReportLine[];
  verdict: { headline: string; why: string[]; share: string | null };
  decision: ReportLine[];
  parts: ReportLine[];
  proofs: ReportLine[];
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

/** A job's report; its times are on the clock of `timeZone`. */
export function buildReport(
  speaker: Speaker,
  job: ReportJob,
  state: JobState,
  outlook: Outlook,
  timeZone: string,
  arrivals: ReadonlyMap<string, Arrival> = new Map(),
): Report {
  const { diagnosis, standings } = outlook;
  const day = (iso: string) => siteMoment(iso, timeZone);
  const { verdict, suspects } = diagnosis;
  const readings = state.readings.map(({ reading }) => reading);
  const lead = suspects[0];
  const { parts } = speaker.model.compiled;
  const dead = readings.findLast((one) => one.kind === 'function' && one.value !== 'works');
  const named = verdict.state === 'name' ? verdict.part : null;
  const lane =
    speaker.lanes.lanes.find((one) => named && onLane(speaker, one, named)) ??
    speaker.lanes.lanes.find(({ id }) => dead && 'part' in dead && id === dead.part) ??
    chooseLane(speaker.lanes, [], standings);
  const { decision, opinion, handOver } = state;
  return {
    number: job.number,
    title: job.title,
    machine: `${job.machineCode} ${job.machineName}`,
    function: job.functionName,
    person: job.person ?? 'nobody yet',
    opened: day(job.openedAt),
    closed: handOver ? day(handOver.at) : null,
    complaint: state.complaint ?? 'No words were written down.',
    codes: state.codes.map(({ key, entry, present }) => ({
      text: `${key} ${entry.body.text}`,
      beside: present ? 'still there' : 'gone',
      tone: present ? 'left' : 'good',
    })),
    defects: safetyDefects(speaker.model, state).map(({ item, guards, found }) => ({
      text: `Safety defect: ${item}${found ? ', found in the machine' : ''}`,
      beside: `${guards.join(', ')} out of action`,
      tone: 'bad',
    })),
    safety: [...state.isolated.values()].map(({ body, person }) => ({
      text: `${pointTitle(body.point)}: ${body.how}${body.lock ? `, lock ${body.lock}` : ''}, ${person}`,
      beside: body.proved
        ? `proved dead: ${body.proved.work.map(({ from, to, measured }) => `${from} to ${to} ${quantity('volts', measured.value)}`).join(', ')}${body.proved.meter ? `, ${body.proved.meter}` : ''}`
        : (body.tried ?? ''),
    })),
    path: lane
      ? [...lane.feed, lane.load, ...lane.back].map((step) => ({
          name: parts[step.part]!.part.ref,
          state: standings[step.part]!.state,
          turns: standings[step.part]!.turns,
          load: step === lane.load,
        }))
      : [],
    evidence: state.history.map(({ entry, superseded }) => ({
      text: `${readingWords(speaker, entry.body.reading)}${apart(entry.body.reading.setup)}`,
      beside: `${writtenWords(entry.at, arrivals.get(entry.id), timeZone)}, ${entry.person}${superseded ? ', taken back' : entry.body.phase ? ', after the fix' : ''}`,
      ...(superseded ? { tone: 'left' as const } : {}),
    })),
    verdict: {
      headline:
        verdict.state === 'name' && lead
          ? `${partWords(speaker, verdict.part)} proved bad: ${faultWords(lead)}`
          : verdict.state === 'noFault'
            ? 'Nothing wrong was found'
            : verdict.state === 'unexplained'
              ? 'No fault on the drawing fits these readings'
              : 'Not proved',
      why: lead
        ? [
            `For: ${evidenceWords(speaker, lead.for, readings)}`,
            `Against: ${evidenceWords(speaker, lead.against, readings)}`,
            ...(verdict.state === 'name' ? [] : [verdictWhy(verdict)]),
          ]
        : [verdictWhy(verdict)],
      share: verdict.state === 'name' ? shareWords(verdict.share) : null,
    },
    decision: [
      ...(decision
        ? [
            {
              text: `${{ repair: 'Repair', replace: 'Replace', nothing: 'Change nothing' }[decision.body.action]}${decision.body.part ? ` ${partWords(speaker, decision.body.part)}` : ''}${decision.body.why ? `: ${decision.body.why}` : ''}`,
              beside: [
                decision.person,
                decision.body.minutes === null ? '' : `${decision.body.minutes} min`,
                decision.body.cost === null ? '' : `parts ${decision.body.cost}`,
              ]
                .filter(Boolean)
                .join(', '),
            },
            ...decision.body.cleared.map((text): ReportLine => ({
              text: `Cleared first: ${text}`,
              tone: 'good',
            })),
            ...(decision.body.against
              ? [{ text: `Against the count: ${decision.body.against}`, tone: 'left' as const }]
              : []),
          ]
        : []),
      ...(opinion
        ? [
            {
              text: `${opinion.body.says === 'approve' ? 'Approved' : 'Sent back'}${opinion.body.note ? `: ${opinion.body.note}` : ''}`,
              beside: opinion.person,
            },
          ]
        : []),
    ],
    parts: [
      ...state.spareTests.map(({ body }): ReportLine => ({
        text: `Spare for ${body.part}, ${body.measure}: ${body.typed}`,
        beside: body.good ? 'as it should' : 'not fitted',
        tone: body.good ? 'good' : 'bad',
      })),
      ...state.fixes.map(({ body, person }) => ({
        text: [
          body.work,
          body.spare && `spare ${body.spare}`,
          body.serial && `serial ${body.serial}`,
          body.dated && `dated ${body.dated}`,
          body.torque && `torque ${body.torque}`,
          body.seals && `seals ${body.seals}`,
          body.untested && `spare not read on the bench, because ${body.untested}`,
        ]
          .filter(Boolean)
          .join(', '),
        beside: person,
      })),
    ],
    proofs: proofList(speaker.model, state).map((proof) => {
      const now = proofStanding(proof, state);
      // A reason that was given stands on the paper, also where the rule of today does not take it.
      const left = state.proofs.get(proof.id)?.body.reason;
      const tone = ({ done: 'good', wrong: 'bad', signedOff: 'left', open: 'left' } as const)[now.state];
      const beside =
        now.state === 'open'
          ? ['not shown', ...(left ? [`left: ${left}`] : [])].join('; ')
          : now.state === 'signedOff'
            ? `left: ${now.reason}`
            : now.found;
      return { text: proofWords(speaker, proof), beside, tone };
    }),
    left: [
      ...(handOver?.body.left ?? []).map((text): ReportLine => ({ text, tone: 'left' })),
      ...state.codes
        .filter(({ present }) => present)
        .map(({ key, entry }): ReportLine => ({
          text: `Code ${key} remains: ${entry.body.text}`,
          tone: 'left',
        })),
    ],
    baselines: state.after
      .filter(({ reading }) => typeof reading.value === 'number')
      .map(({ reading }) => ({ text: readingWords(speaker, reading) })),
    retest: handOver?.body.retest ?? null,
  };
}

function onLane(speaker: Speaker, lane: Speaker['lanes']['lanes'][number], ref: string): boolean {
  const index = speaker.model.compiled.partIndex.get(ref);
  return [...lane.feed, lane.load, ...lane.back].some(({ part }) => part === index);
}

function apart({ pulled, isolated }: Setup): string {
  const off = [...(pulled ?? []), ...(isolated ?? [])];
  return off.length > 0 ? ` (${off.join(', ')} out)` : '';
}
