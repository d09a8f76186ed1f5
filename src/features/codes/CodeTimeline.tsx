'use client';

import { BarElement, CategoryScale, Chart, LinearScale, Tooltip, type ChartOptions } from 'chart.js';
import { useEffect, useMemo, useState } from 'react';
import { Bar } from 'react-chartjs-2';
import type { LogSummary } from '@/core/codes/codeLog';
import { useInks } from '@/ui/useInks';
import { codeName } from '@/words/en/codes';

Chart.register(BarElement, CategoryScale, LinearScale, Tooltip);

const MOST_ROWS = 30;
const ROW = 34;
const FIGURES = '15px B612';

/** When each code was there: one lane a code, a bar for each stretch. */
export function CodeTimeline({ summary: { codes, from, to } }: { summary: LogSummary }) {
  const inks = useInks();
  const [lettered, setLettered] = useState(() => document.fonts.check(FIGURES));
  // A canvas does not draw itself again when its letters arrive.
  useEffect(() => {
    void document.fonts.load(FIGURES).then(() => setLettered(true));
  }, []);
  const shown = useMemo(() => codes.slice(0, MOST_ROWS), [codes]);
  const minutes = to - from > 600;
  const scale = minutes ? 60 : 1;
  const names = useMemo(
    () => shown.map((code) => `${codeName(code)}${code.sourceAddress < 0 ? '' : ` · ${code.sourceAddress}`}`),
    [shown],
  );
  const least = (to - from) / scale / 400;
  const data = {
    labels: names,
    datasets: [
      {
        data: shown.flatMap((code, row) =>
          code.spans.map(([start, end]) => ({
            x: [(start - from) / scale, Math.max((end - from) / scale, (start - from) / scale + least)] as [
              number,
              number,
            ],
            y: names[row]!,
          })),
        ),
        backgroundColor: inks.copper,
        barThickness: 14,
        grouped: false,
      },
    ],
  };
  const options: ChartOptions<'bar'> = {
    indexAxis: 'y',
    animation: false,
    maintainAspectRatio: false,
    plugins: {
      tooltip: {
        callbacks: {
          label: ({ raw }) => {
            const [start, end] = (raw as { x: [number, number] }).x;
            const round = (value: number) => Number(value.toFixed(minutes ? 2 : 1));
            return `${round(start)} to ${round(end)} ${minutes ? 'min' : 's'}`;
          },
        },
      },
    },
    scales: {
      x: {
        min: 0,
        max: Math.max((to - from) / scale, 1),
        grid: { color: inks.rule },
        ticks: { color: inks.ink2, font: { family: 'B612', size: 15 } },
        title: {
          display: true,
          text: minutes ? 'minutes' : 'seconds',
          color: inks.ink2,
          font: { family: 'Sofia Sans Semi Condensed Variable', size: 15 },
        },
      },
      y: {
        grid: { display: false },
        ticks: { color: inks.ink, autoSkip: false, font: { family: 'B612', size: 15 } },
      },
    },
  };
  return (
    <div style={{ height: ROW * shown.length + 64 }} data-testid="timeline">
      {/* Chart.js takes points with a start and an end for a floating bar; its types know only the plain form. */}
      <Bar
        key={String(lettered)}
        data={data as unknown as Parameters<typeof Bar>[0]['data']}
        options={options}
        role="img"
        aria-label="When each code was there; the table below says the same"
      />
    </div>
  );
}
