import type { CoilAnswer, CoilSheet } from '@/core/sheets/coil/coil';
import { quantity } from '@/words/en/readings';

const WIDTH = 560;
/** The names stand left of the scale. */
const [LEFT, RIGHT] = [150, 14];
/** Room around the outermost mark, as a share of what is shown. */
const MARGIN = 0.12;
/** Everything on one spot still needs a scale: this much of it to either side. */
const LEAST_SPAN = 0.05;
const ROW = 26;

/** One dot: ohms at 20 °C, or pale as it was read where its temperature is not known. */
export interface StripDot {
  ohms: number;
  pale?: boolean;
}

/** The coil of a bench sheet among its kind. */
export function CoilStrip({ sheet, answer }: { sheet: CoilSheet; answer: CoilAnswer }) {
  const dots = (values: readonly number[] = []) => values.map((ohms) => ({ ohms }));
  const rows = { twins: dots(sheet.twins), own: dots(sheet.own), fleet: dots(sheet.fleet) };
  return answer.ohms20 === null ? null : (
    <WindingStrip ohms20={answer.ohms20} maker={sheet.maker ?? null} rows={rows} />
  );
}

/**
 * A winding among its kind: neighbours, its past, the fleet, each a row of dots, and where this one stands through all of them, once it
 * was read.
 */
export function WindingStrip({
  ohms20,
  maker: given,
  rows: { twins, own, fleet },
}: {
  ohms20: number | null;
  maker: CoilSheet['maker'] | null;
  rows: Record<'twins' | 'own' | 'fleet', readonly StripDot[]>;
}) {
  const rows = [
    { name: 'identical neighbours', dots: twins },
    { name: 'its own past', dots: own },
    { name: 'the fleet', dots: fleet },
  ].filter(({ dots }) => dots.length > 0);
  const maker = given?.ohms;
  const slack = given?.tolerance;
  const all = [
    ...rows.flatMap(({ dots }) => dots.map(({ ohms }) => ohms)),
    ...(ohms20 === null ? [] : [ohms20]),
    ...(maker === undefined ? [] : [maker * (1 - (slack ?? 0)), maker * (1 + (slack ?? 0))]),
  ];
  if (all.length < 2) return null;
  const [least, most] = [Math.min(...all), Math.max(...all)];
  const margin = Math.max(MARGIN * (most - least), LEAST_SPAN * most);
  const x = (ohms: number) =>
    LEFT + ((ohms - least + margin) / (most - least + 2 * margin)) * (WIDTH - LEFT - RIGHT);
  const height = 34 + ROW * (rows.length + (maker === undefined ? 0 : 1)) + 6;
  const words = [
    ...(ohms20 === null ? [] : [`This one ${quantity('ohms', ohms20)}`]),
    ...rows.map(({ name, dots }) => `${name} ${dots.map(({ ohms }) => quantity('ohms', ohms)).join(', ')}`),
  ].join('; ');
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      className="w-full py-2"
      role="img"
      aria-label={words}
      data-testid="coil-strip"
    >
      {ohms20 === null ? null : (
        <>
          <line x1={x(ohms20)} x2={x(ohms20)} y1={22} y2={height} stroke="var(--pencil)" strokeWidth={2} />
          <circle cx={x(ohms20)} cy={24} r={6} fill="var(--pencil)" />
          <text
            x={x(ohms20)}
            y={13}
            textAnchor={x(ohms20) > WIDTH - 120 ? 'end' : x(ohms20) < LEFT + 60 ? 'start' : 'middle'}
            fontSize={15}
            className="fig-bold"
            fill="var(--pencil)"
          >
            {`this one, ${quantity('ohms', ohms20)}`}
          </text>
        </>
      )}
      {maker === undefined ? null : (
        <Row y={34 + ROW / 2} name={`maker ${quantity('ohms', maker)}`}>
          {slack === undefined ? null : (
            <rect
              x={x(maker * (1 - slack))}
              width={x(maker * (1 + slack)) - x(maker * (1 - slack))}
              y={34 + ROW / 2 - 5}
              height={10}
              fill="var(--verdi-t)"
              stroke="var(--verdi)"
            />
          )}
          <line
            x1={x(maker)}
            x2={x(maker)}
            y1={34 + ROW / 2 - 8}
            y2={34 + ROW / 2 + 8}
            stroke="var(--verdi)"
            strokeWidth={3}
          />
        </Row>
      )}
      {rows.map(({ name, dots }, at) => {
        const y = 34 + ROW * (at + (maker === undefined ? 0 : 1)) + ROW / 2;
        return (
          <Row key={name} y={y} name={name}>
            {dots.map(({ ohms, pale }, k) => (
              <circle
                key={k}
                cx={x(ohms)}
                cy={y}
                r={5}
                fill="none"
                stroke={pale ? 'var(--ink2)' : 'var(--ink)'}
                strokeWidth={1.8}
                strokeDasharray={pale ? '3 2.5' : undefined}
              />
            ))}
          </Row>
        );
      })}
    </svg>
  );
}

/** A row: its name, then its marks on a hairline. */
function Row({ y, name, children }: { y: number; name: string; children: React.ReactNode }) {
  return (
    <g>
      <line x1={LEFT} x2={WIDTH - RIGHT} y1={y} y2={y} stroke="var(--rule)" strokeWidth={1.5} />
      {children}
      <text x={0} y={y + 5} fontSize={15} fill="var(--ink2)">
        {name}
      </text>
    </g>
  );
}
