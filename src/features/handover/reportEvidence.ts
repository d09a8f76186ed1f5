import type { Setup, Test } from '@/core/circuit/schema';
import { nodesOfTest } from '@/core/circuit/testPlace';
import type { EntryOf } from '@/core/job/entries';
import type { JobState } from '@/core/job/reduceJob';
import { chooseLane, complaintLane } from '@/core/path/chooseLane';
import { waysOf } from '@/core/path/lane';
import { badWords, evidenceWords, provedWords, whyWords } from '@/words/en/findings';
import { partWords, pointName, readingWords, type Speaker } from '@/words/en/readings';
import { writtenWords, type Arrival } from '@/words/en/times';
import { keptTraceWords } from '@/words/en/traces';
import { shareWords } from '@/words/en/verdict';
import type { Outlook } from '@/workers/protocol';
import type { Report, ReportLine } from './report';

type HistoryLine = JobState['history'][number];

/** Readings that the verdict stands on, and what was read besides the proofs; what a proof read stands with the proofs. */
export function evidenceLines(
  speaker: Speaker,
  { history, readings, mended, traces }: JobState,
  arrivals: ReadonlyMap<string, Arrival>,
  timeZone: string,
): ReportLine[] {
  const counted = new Set(readings.map(({ entry }) => entry.id));
  const sinceFix = new Set(
    readings.slice(Math.min(Infinity, ...mended.map(({ from }) => from))).map(({ entry }) => entry.id),
  );
  const isTold = ({ entry, superseded }: HistoryLine) =>
    superseded || counted.has(entry.id) || entry.body.check === undefined;
  const isAfterFix = ({ id, body }: EntryOf<'reading'>) =>
    sinceFix.has(id) || (body.phase !== undefined && !counted.has(id));
  const written = ({ id, at, person }: EntryOf<'reading' | 'trace'>) =>
    `${writtenWords(at, arrivals.get(id), timeZone)}, ${person}`;
  return [
    ...history.filter(isTold).map(({ entry, superseded }) => ({
      text: `${readingWords(speaker, entry.body.reading)}${apart(entry.body.reading.setup)}`,
      beside: [
        written(entry),
        ...(superseded ? ['taken back'] : isAfterFix(entry) ? ['after the fix'] : []),
        ...(entry.body.instrument ? ['by wire'] : []),
      ].join(', '),
      ...(superseded ? { tone: 'left' as const } : {}),
    })),
    ...traces.map((entry) => ({
      text: `Trace of ${partWords(speaker, entry.body.part)}: ${keptTraceWords(speaker.model, entry.body)}`,
      beside: [written(entry), ...(entry.body.phase ? ['after the fix'] : [])].join(', '),
    })),
  ];
}

/** The path that the named part is on, else that of the complaint: each part with its doubt. */
export function pathOf(
  { model, lanes }: Speaker,
  { readings }: JobState,
  { diagnosis: { verdict }, standings }: Outlook,
): Report['path'] {
  const { parts, partIndex } = model.compiled;
  const named = verdict.state === 'name' ? partIndex.get(verdict.part) : undefined;
  const complaint = complaintLane(
    lanes,
    readings.map(({ reading }) => reading),
  );
  const withPart = lanes.lanes
    .flatMap(waysOf)
    .filter(
      (one) => named !== undefined && [...one.feed, one.load, ...one.back].some(({ part }) => part === named),
    );
  const lane =
    withPart.find((one) => one === complaint) ??
    withPart[0] ??
    complaint ??
    chooseLane(lanes, { asked: [], standings });
  if (!lane) return [];
  return [...lane.feed, lane.load, ...lane.back].map((step) => ({
    name: parts[step.part]!.part.ref,
    state: standings[step.part]!.state,
    turns: standings[step.part]!.turns,
    load: step === lane.load,
  }));
}

/** What the readings come to, and why. */
export function verdictOf(
  speaker: Speaker,
  { readings }: JobState,
  { verdict, suspects }: Outlook['diagnosis'],
): Report['verdict'] {
  const read = readings.map(({ reading }) => reading);
  const [lead] = suspects;
  const why = whyWords(speaker, verdict, read);
  return {
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
          `For: ${evidenceWords(speaker, lead.for, read)}`,
          `Against: ${evidenceWords(speaker, lead.against, read)}`,
          ...(verdict.state === 'name' ? [] : [why]),
        ]
      : [why],
    share: verdict.state === 'name' ? shareWords(verdict.share) : null,
  };
}

/** What the numbered points of these tests are called on the machine; null where none has a number. */
export function pointsKey(speaker: Speaker, tests: readonly Test[]): string | null {
  const names = new Set(tests.flatMap((test) => (test.kind === 'amps' ? [] : nodesOfTest(test))));
  const key = [...names]
    .map((node) => ({ node, label: pointName(speaker, node) }))
    .filter(({ node, label }) => /^\d+$/.test(label) && label !== node)
    .sort((a, b) => Number(a.label) - Number(b.label))
    .map(({ node, label }) => `${label} is ${node}`);
  return key.length > 0 ? `Points: ${key.join(', ')}.` : null;
}

function apart({ pulled, isolated }: Setup): string {
  const off = [...(pulled ?? []), ...(isolated ?? [])];
  return off.length > 0 ? ` (${off.join(', ')} out)` : '';
}
