import 'server-only';
import { timingSafeEqual } from 'node:crypto';
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client';
import { ofProcess } from '@/db/shed';

/** Seconds at which waits are counted: what a person feels, up to what they give up at. */
const WAITS_S = [0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10];

function make() {
  const registry = new Registry();
  collectDefaultMetrics({ register: registry, prefix: 'spiraxis_' });
  const registers = [registry];
  return {
    registry,
    answers: new Counter({
      name: 'spiraxis_answers_total',
      help: 'Answers of routes and actions, by what was asked and how it ended.',
      labelNames: ['asked', 'ended'] as const,
      registers,
    }),
    seconds: new Histogram({
      name: 'spiraxis_answer_seconds',
      help: 'How long routes and actions took, seconds.',
      labelNames: ['asked'] as const,
      buckets: WAITS_S,
      registers,
    }),
    entries: new Counter({
      name: 'spiraxis_entries_total',
      help: 'Entries taken into the logs of jobs.',
      registers,
    }),
    lines: new Gauge({ name: 'spiraxis_event_lines', help: 'Event lines that are open.', registers }),
  };
}

export const metrics = ofProcess('metrics', make);

/** A path as one of few: what stands in it for one job, machine or picture is left out. */
export function askedName(path: string): string {
  return path
    .replace(/\/machines\/[^/]+/, '/machines/CODE')
    .replace(/\/[0-9a-f]{64}\b|\/[0-9a-f-]{36}\b/g, '/ID')
    .replace(/\/\d+(?=\/|$)/g, '/N');
}

/** Whether a request may read the figures: it brings the word that the keeper has set. Without one nobody may. */
export function mayMeasure(
  authorization: string | null,
  word = process.env.SPIRAXIS_METRICS_WORD ?? '',
): boolean {
  if (word === '') return false;
  const [given, wanted] = [Buffer.from(authorization ?? ''), Buffer.from(`Bearer ${word}`)];
  return given.length === wanted.length && timingSafeEqual(given, wanted);
}
