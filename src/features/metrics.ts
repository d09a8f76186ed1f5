import 'server-only';
import { timingSafeEqual } from 'node:crypto';
import {
  AggregatorRegistry,
  collectDefaultMetrics,
  Counter,
  Gauge,
  Histogram,
  Registry,
  type MetricObjectWithValues,
  type MetricValue,
} from 'prom-client';
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

type Figures = MetricObjectWithValues<MetricValue<string>>[];

/** How the processes beside this one are asked for theirs; `scripts/serve.mjs` puts it in. */
const beside = ofProcess('figures beside', () => ({ ask: (): Promise<Figures[]> => Promise.resolve([]) }));

/** The figures of every process of the server in the text format of Prometheus; the label `process` says whose each is. */
export async function allFigures(): Promise<string> {
  const [own, others] = await Promise.all([metrics.registry.getMetricsAsJSON(), beside.ask()]);
  const all = [figuresOf('server', own), ...others.map((one, at) => figuresOf(`maker${at + 1}`, one))];
  return AggregatorRegistry.aggregate(all).metrics();
}

function figuresOf(process: string, figures: Figures): Figures {
  return figures.map((one) => ({
    ...one,
    values: one.values.map((value) => ({ ...value, labels: { ...value.labels, process } })),
  }));
}

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
