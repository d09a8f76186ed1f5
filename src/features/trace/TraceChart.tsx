'use client';

import type { Plugin } from 'chart.js';
import { Chart, LinearScale, LineElement, PointElement, type ChartOptions } from 'chart.js';
import { useMemo } from 'react';
import { Line } from 'react-chartjs-2';
import { seenPoints } from '@/core/trace/seenPoints';
import type { Trace } from '@/core/trace/trace';
import { useInks, type Inks } from '@/ui/useInks';
import { useLettered } from '@/ui/useLettered';
import { quantity } from '@/words/en/readings';

Chart.register(LinearScale, LineElement, PointElement);

/** A line of the chart. */
export interface TraceLine {
  name: string;
  trace: Trace;
  as: 'own' | 'before' | 'expected';
}

export interface TraceMark {
  at: number;
  words: string;
}

const WORDS = '15px "Sofia Sans Semi Condensed Variable"';

/** A current over time, what it is held against behind it, and words where something happens. */
export function TraceChart({
  label,
  lines,
  marks,
  cursors,
}: {
  label: string;
  lines: readonly TraceLine[];
  marks: readonly TraceMark[];
  cursors: readonly number[];
}) {
  const inks = useInks();
  const lettered = useLettered();
  const data = useMemo(
    () => ({
      datasets: lines.map(({ name, trace: { seconds, values }, as }) => ({
        label: name,
        data: seenPoints(seconds.map((at, k) => [at, values[k]!] as const)).map(([x, y]) => ({ x, y })),
        borderColor: as === 'own' ? inks.pencil : as === 'before' ? inks.ink2 : inks.copper,
        borderWidth: as === 'own' ? 3 : 2.2,
        borderDash: as === 'own' ? [] : as === 'before' ? [8, 5] : [2, 4],
        pointRadius: 0,
        order: as === 'own' ? 0 : 1,
      })),
    }),
    [lines, inks],
  );
  const options: ChartOptions<'line'> = {
    animation: false,
    parsing: false,
    normalized: true,
    maintainAspectRatio: false,
    layout: { padding: { top: 22, right: 10 } },
    plugins: {
      legend: { display: false },
      tooltip: { enabled: false },
    },
    scales: {
      x: {
        type: 'linear',
        min: lines[0]!.trace.seconds[0]!,
        max: lines[0]!.trace.seconds.at(-1)!,
        grid: { display: false },
        border: { color: inks.ink, width: 2 },
        ticks: { color: inks.ink2, font: { family: 'B612', size: 15 }, maxTicksLimit: 7 },
        title: {
          display: true,
          text: 'seconds',
          color: inks.ink2,
          font: { family: 'Sofia Sans Semi Condensed Variable', size: 15 },
        },
      },
      y: {
        // The noise of a clamp round nothing goes below it; no current does that is switched on.
        ...(flowsBack(lines[0]!.trace) ? {} : { min: 0 }),
        grid: { color: inks.rule },
        border: { display: false },
        ticks: {
          color: inks.ink2,
          font: { family: 'B612', size: 15 },
          maxTicksLimit: 6,
          callback: (value) => quantity('amps', Number(value)),
        },
      },
    },
  };
  return (
    <div className="h-[300px] py-2" data-testid="trace-chart">
      <Line
        key={String(lettered)}
        data={data}
        options={options}
        plugins={[marked(marks, inks), crossed(cursors, inks)]}
        role="img"
        aria-label={label}
      />
    </div>
  );
}

/** Whether a trace goes below nothing by more than its noise. */
function flowsBack({ values }: Trace): boolean {
  let [low, high] = [0, 0];
  for (const value of values) {
    low = Math.min(low, value);
    high = Math.max(high, value);
  }
  return -low > NOISE_SHARE * high;
}
const NOISE_SHARE = 0.1;

/** Words over the curve with a hairline down to it; those that would run into each other stand one line lower. */
function marked(marks: readonly TraceMark[], inks: Inks): Plugin<'line'> {
  return {
    id: 'marked',
    afterDatasetsDraw: ({ ctx, chartArea: area, scales: { x } }) => {
      ctx.save();
      ctx.font = WORDS;
      ctx.lineWidth = 1.5;
      const ends = [-Infinity, -Infinity, -Infinity];
      for (const { at, words } of marks) {
        const on = x!.getPixelForValue(at);
        if (on < area.left - 1 || on > area.right + 1) continue;
        const wide = ctx.measureText(words).width;
        const from = Math.min(Math.max(on + 4, area.left), area.right - wide);
        const row = Math.max(
          ends.findIndex((end) => end + 8 < from),
          0,
        );
        ends[row] = from + wide;
        const y = area.top - 6 + 18 * row;
        ctx.strokeStyle = inks.edge;
        ctx.beginPath();
        ctx.moveTo(on, y - 10);
        ctx.lineTo(on, area.bottom);
        ctx.stroke();
        ctx.lineWidth = 4;
        ctx.strokeStyle = inks.sheet;
        ctx.strokeText(words, from, y);
        ctx.lineWidth = 1.5;
        ctx.fillStyle = inks.ink;
        ctx.fillText(words, from, y);
      }
      ctx.restore();
    },
  };
}

/** The two cursors, as full lines in the hand's colour. */
function crossed(cursors: readonly number[], inks: Inks): Plugin<'line'> {
  return {
    id: 'crossed',
    afterDatasetsDraw: ({ ctx, chartArea: area, scales: { x } }) => {
      ctx.save();
      ctx.strokeStyle = inks.pencil;
      ctx.lineWidth = 2;
      for (const at of cursors) {
        const on = x!.getPixelForValue(at);
        ctx.beginPath();
        ctx.moveTo(on, area.top);
        ctx.lineTo(on, area.bottom);
        ctx.stroke();
      }
      ctx.restore();
    },
  };
}
