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
import { useEffect, useState } from 'react';
import { Line } from 'react-chartjs-2';
import { useInks, type Inks } from '@/ui/useInks';
import type { SheetChart } from './benchCharts';

Chart.register(LinearScale, LineElement, LogarithmicScale, PointElement);

const FIGURES = '15px B612';
const WORDS = '15px "Sofia Sans Semi Condensed Variable"';
/** More marks than this run into each other. */
const MOST_MARKS = 40;
const LIMIT_HATCH = 0.55;

/** A sheet's readings as lines, their names written on them; level lines only. */
export function SheetChartFigure({ chart }: { chart: SheetChart }) {
  const inks = useInks();
  const [lettered, setLettered] = useState(() => document.fonts.check(FIGURES));
  // A canvas does not draw itself again when its letters arrive.
  useEffect(() => {
    void document.fonts.load(FIGURES).then(() => setLettered(true));
  }, []);
  const options: ChartOptions<'line'> = {
    animation: false,
    maintainAspectRatio: false,
    layout: { padding: { right: 12, top: 22 } },
    plugins: { legend: { display: false }, tooltip: { enabled: false } },
    scales: {
      x: {
        type: 'linear',
        grid: { display: false },
        border: { color: inks.ink, width: 2 },
        ticks: { color: inks.ink2, font: { family: 'B612', size: 15 }, maxTicksLimit: 7 },
        title: { display: true, text: chart.xTitle, color: inks.ink2, font: { size: 15 } },
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

/** Under the lines: what does not pass, and when something was on. */
function ground({ limit, on = [] }: SheetChart, inks: Inks): Plugin<'line'> {
  return {
    id: 'ground',
    beforeDatasetsDraw: ({ ctx, chartArea: area, scales: { x, y } }) => {
      ctx.save();
      ctx.fillStyle = inks['stamp-t'];
      ctx.globalAlpha = LIMIT_HATCH;
      for (const [from, to] of on) {
        const [left, right] = [x!.getPixelForValue(from), x!.getPixelForValue(to)];
        ctx.fillRect(left, area.top, right - left, area.height);
      }
      ctx.globalAlpha = 1;
      if (limit) {
        const at = Math.min(Math.max(y!.getPixelForValue(limit.value), area.top), area.bottom);
        ctx.fillRect(area.left, at, area.width, area.bottom - at);
        ctx.fillStyle = inks.ink;
        ctx.fillRect(area.left, at - 1, area.width, 2);
        ctx.font = WORDS;
        ctx.textAlign = 'right';
        ctx.fillText(limit.words, area.right - 4, at + 17);
      }
      ctx.restore();
    },
  };
}

/** Each line's name at its end, above it; none over another. */
function names({ lines }: SheetChart, inks: Inks): Plugin<'line'> {
  return {
    id: 'names',
    afterDatasetsDraw: ({ ctx, chartArea: area, scales: { x, y } }) => {
      ctx.save();
      ctx.font = WORDS;
      ctx.textAlign = 'right';
      ctx.lineWidth = 5;
      ctx.strokeStyle = inks.sheet;
      const taken: number[] = [];
      lines.forEach(({ name, points, past }) => {
        const last = points.at(-1);
        if (!last || (lines.length === 1 && !past)) return;
        let at = y!.getPixelForValue(last[1]) - 9;
        while (taken.some((one) => Math.abs(one - at) < 17)) at -= 17;
        at = Math.max(at, area.top - 6);
        taken.push(at);
        const right = Math.min(x!.getPixelForValue(last[0]), area.right);
        ctx.fillStyle = past ? inks.ink2 : inks.pencil;
        ctx.strokeText(name, right, at);
        ctx.fillText(name, right, at);
      });
      ctx.restore();
    },
  };
}
