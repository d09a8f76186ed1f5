'use client';

import {
  Chart,
  LinearScale,
  LineElement,
  LogarithmicScale,
  PointElement,
  ScatterController,
  type ChartOptions,
  type Plugin,
} from 'chart.js';
import { addMonths, differenceInCalendarMonths, format, startOfMonth } from 'date-fns';
import { useMemo } from 'react';
import { Scatter } from 'react-chartjs-2';
import type { PlaceTrend } from '@/core/shed/functionTrends';
import type { GaugeUnit } from '@/core/units/quantities';
import { useInks, type Inks } from '@/ui/useInks';
import { useLettered } from '@/ui/useLettered';
import { limitWords, measureFigure } from '@/words/en/trends';

Chart.register(LinearScale, LogarithmicScale, LineElement, PointElement, ScatterController);

const DAY_MS = 86_400_000;
const WORDS = '15px "Sofia Sans Semi Condensed Variable"';
/** Room ahead of the last reading, as a share of the past. */
const AHEAD_SHARE = 0.25;
/** A line that bends is drawn in so many pieces. */
const STEPS = 24;
/** Words stand this far off the edge of the chart, px. */
const INSET = 8;

/** A place over the years: every reading, the limit it is held against, repairs, and where the line runs to. */
export function PlaceChart({
  trend,
  gaugeUnit,
  label,
}: {
  trend: PlaceTrend;
  gaugeUnit: GaugeUnit;
  label: string;
}) {
  const inks = useInks();
  const lettered = useLettered();
  const { kind, dots, limits } = trend;
  const lines = useMemo(() => linesOf(trend), [trend]);
  const data = useMemo(
    () => ({
      datasets: [
        {
          label: 'read',
          data: dots.map(({ at, value }) => ({ x: Date.parse(at) / DAY_MS, y: value })),
          pointRadius: dots.map((_dot, k) => (k === dots.length - 1 ? 6 : 4.5)),
          pointBackgroundColor: dots.map(({ corrected }, k) =>
            k === dots.length - 1 ? inks.pencil : corrected ? inks.ink2 : inks.sheet,
          ),
          pointBorderColor: dots.map((_dot, k) => (k === dots.length - 1 ? inks.pencil : inks.ink2)),
          pointBorderWidth: 1.8,
          showLine: false,
        },
        ...lines.map(({ points, as }) => ({
          label: as,
          data: points,
          showLine: true,
          pointRadius: 0,
          borderColor: inks.copper,
          borderWidth: as === 'line' ? 2.4 : 2,
          borderDash: as === 'line' ? [] : [2, 5],
        })),
      ],
    }),
    [dots, lines, inks],
  );
  const begin = Date.parse(dots[0]!.at) / DAY_MS;
  const end = Math.max(
    ...lines.flatMap(({ points }) => points.map(({ x }) => x)),
    Date.parse(dots.at(-1)!.at) / DAY_MS,
  );
  const room = Math.max(20, AHEAD_SHARE * (end - begin)) / 2;
  const bounds = [limits?.least, limits?.most].filter((one): one is number => typeof one === 'number');
  const shown = bounds.filter((one) =>
    isNear(
      one,
      dots.map(({ value }) => value),
    ),
  );
  const isLog = kind === 'insulation';
  const options: ChartOptions<'scatter'> = {
    animation: false,
    maintainAspectRatio: false,
    layout: { padding: { top: 8, right: 10 } },
    plugins: { legend: { display: false }, tooltip: { enabled: false } },
    scales: {
      x: {
        type: 'linear',
        min: begin - room / 4,
        max: end + room,
        grid: { display: false },
        border: { color: inks.ink, width: 2 },
        ticks: {
          color: inks.ink2,
          font: { family: 'B612', size: 15 },
          callback: (value) => format(new Date(Number(value) * DAY_MS), 'MMM yyyy'),
        },
        afterBuildTicks: (axis) => {
          axis.ticks = monthsBetween(axis.min, axis.max, Math.floor(axis.width / TICK_WIDTH)).map(
            (value) => ({ value }),
          );
        },
      },
      y: {
        type: isLog ? 'logarithmic' : 'linear',
        grid: { color: inks.rule },
        border: { display: false },
        grace: '8%',
        // Room for the far side of a limit, which is where it must not go.
        ...(shown.length > 0
          ? {
              suggestedMin: (isLog ? 0.5 : 1) * Math.min(...shown),
              suggestedMax: (isLog ? 2 : 1) * Math.max(...shown),
            }
          : {}),
        ticks: {
          color: inks.ink2,
          font: { family: 'B612', size: 15 },
          maxTicksLimit: 6,
          callback: (value) => measureFigure(kind, Number(value), gaugeUnit),
        },
      },
    },
  };
  return (
    <div className="h-[340px] py-2" data-testid="place-chart">
      <Scatter
        key={String(lettered)}
        data={data}
        options={options}
        plugins={[ruled(trend, shown, inks)]}
        role="img"
        aria-label={label}
      />
    </div>
  );
}

/** First days of months, evenly apart, no more than fit. */
function monthsBetween(from: number, to: number, most: number): number[] {
  const first = startOfMonth(new Date(from * DAY_MS));
  const months = differenceInCalendarMonths(new Date(to * DAY_MS), first);
  const step = MONTH_STEPS.find((one) => months / one <= most) ?? 12;
  return Array.from(
    { length: Math.floor(months / step) + 1 },
    (_, k) => addMonths(first, k * step).getTime() / DAY_MS,
  ).filter((day) => day >= from);
}
const MONTH_STEPS = [1, 2, 3, 6, 12] as const;
/** Room that a month and its year take, px. */
const TICK_WIDTH = 105;

/** Limits that lie so far off that the readings would be a flat line are named beside the chart, not drawn. */
function isNear(limit: number, values: readonly number[]): boolean {
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const reach = Math.max(high - low, 0.05 * Math.abs(high));
  return limit > low - 12 * reach && limit < high + 12 * reach;
}

interface Line {
  as: 'line' | 'ahead';
  points: { x: number; y: number }[];
}

/** The trend over what it stands on, and on to its limit. */
function linesOf({ dots, trend, limits, repairs }: PlaceTrend): Line[] {
  const { perYear, level, toLimit, beyond, state, byFactors } = trend;
  if (!perYear || state === 'steady') return [];
  const since = repairs.at(-1);
  const own = since === undefined ? dots : dots.filter(({ at }) => at >= since);
  const first = own[0];
  if (!first) return [];
  const last = Date.parse(dots.at(-1)!.at) / DAY_MS;
  const begin = Date.parse(first.at) / DAY_MS;
  const at = (day: number) => {
    const years = (day - last) / 365.25;
    return byFactors ? level * (1 + perYear.about) ** years : level + perYear.about * years;
  };
  const between = (from: number, to: number) =>
    Array.from({ length: STEPS + 1 }, (_, k) => from + ((to - from) * k) / STEPS).map((x) => ({
      x,
      y: at(x),
    }));
  const line: Line = { as: 'line', points: between(begin, last) };
  const limit = toLimit && limits?.[toLimit.side];
  if (!toLimit || beyond || limit === null || limit === undefined) return [line];
  const ahead: Line = { as: 'ahead', points: between(last, last + toLimit.about) };
  return [line, ahead];
}

/** Limits with their words on the line, the far side tinted; repairs as marks on the ground line. */
function ruled(
  { repairs, limits, kind }: PlaceTrend,
  shown: readonly number[],
  inks: Inks,
): Plugin<'scatter'> {
  return {
    id: 'ruled',
    beforeDatasetsDraw: ({ ctx, chartArea: area, scales: { x, y } }) => {
      ctx.save();
      ctx.font = WORDS;
      for (const limit of shown) {
        const on = y!.getPixelForValue(limit);
        if (on < area.top || on > area.bottom) continue;
        const below = limit === limits?.least;
        ctx.fillStyle = inks['stamp-t'];
        if (below) ctx.fillRect(area.left, on, area.width, area.bottom - on);
        else ctx.fillRect(area.left, area.top, area.width, on - area.top);
        ctx.strokeStyle = inks.ink;
        ctx.lineWidth = 1.8;
        ctx.beginPath();
        ctx.moveTo(area.left, on);
        ctx.lineTo(area.right, on);
        ctx.stroke();
        ctx.fillStyle = inks.ink;
        const side = below ? 'not below' : 'not above';
        const whole = `${side}: ${limits ? limitWords(limits.source) : kind}`;
        // The words under the chart say what it is held against: a phone has room for the side alone.
        const words = ctx.measureText(whole).width > area.width - 2 * INSET ? side : whole;
        const room = below ? area.bottom - on : on - area.top;
        // In the tint where there is room, inside the line where there is none.
        const inside = room < 22;
        ctx.fillText(words, area.left + INSET, below === inside ? on - 6 : on + 16);
      }
      for (const at of repairs) {
        const on = x!.getPixelForValue(Date.parse(at) / DAY_MS);
        ctx.strokeStyle = inks.verdi;
        ctx.lineWidth = 3;
        ctx.beginPath();
        ctx.moveTo(on, area.bottom);
        ctx.lineTo(on, area.bottom - 26);
        ctx.stroke();
        ctx.fillStyle = inks.verdi;
        ctx.fillText('mended', on + 5, area.bottom - 12);
      }
      ctx.restore();
    },
  };
}
