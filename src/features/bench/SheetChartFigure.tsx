'use client';

import {
  Chart,
  LinearScale,
  LineElement,
  LogarithmicScale,
  PointElement,
  type ChartOptions,
  type Plugin,
} from 'chart.js';
import { Line } from 'react-chartjs-2';
import { useInks, type Inks } from '@/ui/useInks';
import { useLettered } from '@/ui/useLettered';
import type { SheetChart } from './benchCharts';

Chart.register(LinearScale, LineElement, LogarithmicScale, PointElement);

const WORDS = '15px "Sofia Sans Semi Condensed Variable"';
/** More marks than this run into each other. */
const MOST_MARKS = 40;
const ON_SHADE = 0.55;

/** A sheet's readings as lines, their names written on them; level lines only. */
export function SheetChartFigure({ chart }: { chart: SheetChart }) {
  const inks = useInks();
  const lettered = useLettered();
  const options: ChartOptions<'line'> = {
    animation: false,
    maintainAspectRatio: false,
    layout: { padding: { right: 12, top: 14 } },
    plugins: { legend: { display: false }, tooltip: { enabled: false } },
    scales: {
      x: {
        type: 'linear',
        grid: { display: false },
        border: { color: inks.ink, width: 2 },
        ...(chart.fromZero ? { min: 0 } : {}),
        ticks: { color: inks.ink2, font: { family: 'B612', size: 15 }, maxTicksLimit: 7 },
        title: {
          display: true,
          text: chart.xTitle,
          color: inks.ink2,
          font: { family: 'Sofia Sans Semi Condensed Variable', size: 15 },
        },
      },
      y: {
        type: chart.logarithmic ? 'logarithmic' : 'linear',
        grid: { color: inks.rule },
        border: { display: false },
        // The limit belongs into the picture, also where nothing comes near it.
        ...(chart.limit ? { suggestedMin: chart.limit.value / 3, suggestedMax: chart.limit.value * 3 } : {}),
        ticks: {
          color: inks.ink2,
          font: { family: 'B612', size: 15 },
          maxTicksLimit: 6,
          callback: (value) =>
            isPlainStep(Number(value), chart.logarithmic) ? chart.yWords(Number(value)) : '',
        },
      },
    },
  };
  const data = {
    datasets: chart.lines.map(({ points, past }) => ({
      data: points.map(([x, y]) => ({ x, y })),
      borderColor: past ? inks.ink2 : inks.pencil,
      borderWidth: past ? 2.4 : 3.6,
      borderDash: past ? [8, 5] : [],
      pointRadius: past || points.length > MOST_MARKS ? 0 : 4.5,
      pointStyle: 'rect' as const,
      backgroundColor: inks.pencil,
    })),
  };
  return (
    <div className="h-[260px] py-2" data-testid="sheet-chart">
      <Line
        key={`${lettered} ${inks.ink} ${chart.label}`}
        data={data}
        options={options}
        plugins={[ground(chart, inks), names(chart, inks)]}
        role="img"
        aria-label={chart.label}
      />
    </div>
  );
}

/** On a scale of ratios only whole decades are written, else they run together. */
function isPlainStep(value: number, logarithmic: boolean): boolean {
  return !logarithmic || Math.abs(Math.log10(value) - Math.round(Math.log10(value))) < 1e-6;
}

/** Under the lines: the side of the limit that does not pass, and when something was on. */
function ground({ limit, on = [] }: SheetChart, inks: Inks): Plugin<'line'> {
  return {
    id: 'ground',
    beforeDatasetsDraw: ({ ctx, chartArea: area, scales: { x, y } }) => {
      ctx.save();
      ctx.fillStyle = inks.rule;
      ctx.globalAlpha = ON_SHADE;
      for (const [from, to] of on) {
        const [left, right] = [x!.getPixelForValue(from), x!.getPixelForValue(to)];
        ctx.fillRect(left, area.top, right - left, area.height);
      }
      ctx.globalAlpha = 1;
      if (limit) {
        ctx.fillStyle = inks['stamp-t'];
        const at = Math.min(Math.max(y!.getPixelForValue(limit.value), area.top), area.bottom);
        if (limit.passesBelow) ctx.fillRect(area.left, area.top, area.width, at - area.top);
        else ctx.fillRect(area.left, at, area.width, area.bottom - at);
        ctx.fillStyle = inks.ink;
        ctx.fillRect(area.left, at - 1, area.width, 2);
        ctx.font = WORDS;
        // Lines end at the right; where the ground is low it is said above its edge.
        ctx.fillText(limit.words, area.left + 6, at + 19 < area.bottom ? at + 17 : at - 7);
      }
      ctx.restore();
    },
  };
}

/** Each line's name on it: today's at its end, what it is held against at its beginning; none over another. */
function names({ lines }: SheetChart, inks: Inks): Plugin<'line'> {
  return {
    id: 'names',
    afterDatasetsDraw: ({ ctx, chartArea: area, scales: { x, y } }) => {
      ctx.save();
      ctx.font = WORDS;
      ctx.lineWidth = 5;
      ctx.strokeStyle = inks.sheet;
      const taken: Record<'left' | 'right', number[]> = { left: [], right: [] };
      lines.forEach(({ name, points, past, namedAtEnd }) => {
        const side = past && !namedAtEnd ? 'left' : 'right';
        const end = side === 'left' ? points[0] : points.at(-1);
        if (!end || (lines.length === 1 && !past)) return;
        const on = y!.getPixelForValue(end[1]);
        const free = [on - 9, on + 21, on - 26, on + 38].find(
          (at) =>
            at > area.top - 8 && at < area.bottom && taken[side].every((one) => Math.abs(one - at) > 16),
        );
        const at = free ?? on - 9;
        taken[side].push(at);
        const edge = Math.min(Math.max(x!.getPixelForValue(end[0]), area.left + 6), area.right);
        // Where a line ends too far left for its name before it, the name stands behind it.
        const fits = side === 'left' || edge - ctx.measureText(name).width >= area.left;
        ctx.textAlign = fits ? side : 'left';
        ctx.fillStyle = past ? inks.ink2 : inks.pencil;
        ctx.strokeText(name, edge, at);
        ctx.fillText(name, edge, at);
      });
      ctx.restore();
    },
  };
}
