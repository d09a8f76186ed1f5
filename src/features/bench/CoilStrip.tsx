import type { CoilAnswer, CoilSheet } from '@/core/sheets/coil/coil';
import { quantity } from '@/words/en/readings';

/** Room around the outermost mark, as a share of what is shown. */
const MARGIN = 0.12;
/** Everything on one spot still needs a scale: this much of it to either side. */
const LEAST_SPAN = 0.05;
/** A row with its name over its marks, and the room that this one's own figure takes above them, pixels. */
const ROW = 40;
const HEAD = 26;
/** Where a figure would run over an edge it stands on its other side, and names at the end that is free, percent. */
const EDGE = 28;

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
  const percent = (ohms: number) => (100 * (ohms - least + margin)) / (most - least + 2 * margin);
  const x = (ohms: number) => `${percent(ohms)}%`;
  const height = HEAD + ROW * (rows.length + (maker === undefined ? 0 : 1)) + 6;
  const middleOf = (row: number) => HEAD + ROW * row + ROW - 10;
  const words = [
    ...(ohms20 === null ? [] : [`This one ${quantity('ohms', ohms20)}`]),
    ...rows.map(({ name, dots }) => `${name} ${dots.map(({ ohms }) => quantity('ohms', ohms)).join(', ')}`),
  ].join('; ');
  // Names stand clear of the line through all rows.
  const atEnd = ohms20 !== null && percent(ohms20) < EDGE;
  return (
    <svg height={height} className="my-2 w-full" role="img" aria-label={words} data-testid="coil-strip">
      {ohms20 === null ? null : (
        <>
          <line x1={x(ohms20)} x2={x(ohms20)} y1={18} y2={height} stroke="var(--pencil)" strokeWidth={2} />
          <circle cx={x(ohms20)} cy={20} r={6} fill="var(--pencil)" />
          <text
            x={x(ohms20)}
            y={12}
            textAnchor={percent(ohms20) > 100 - EDGE ? 'end' : percent(ohms20) < EDGE ? 'start' : 'middle'}
            fontSize={15}
            className="fig-bold"
            fill="var(--pencil)"
          >
            {`this one, ${quantity('ohms', ohms20)}`}
          </text>
        </>
      )}
      {maker === undefined ? null : (
        <Row y={middleOf(0)} name={`maker ${quantity('ohms', maker)}`} atEnd={atEnd}>
          {slack === undefined ? null : (
            <rect
              x={x(maker * (1 - slack))}
              width={`${percent(maker * (1 + slack)) - percent(maker * (1 - slack))}%`}
              y={middleOf(0) - 5}
              height={10}
              fill="var(--verdi-t)"
              stroke="var(--verdi)"
            />
          )}
          <line
            x1={x(maker)}
            x2={x(maker)}
            y1={middleOf(0) - 8}
            y2={middleOf(0) + 8}
            stroke="var(--verdi)"
            strokeWidth={3}
          />
        </Row>
      )}
      {rows.map(({ name, dots }, at) => {
        const y = middleOf(at + (maker === undefined ? 0 : 1));
        return (
          <Row key={name} y={y} name={name} atEnd={atEnd}>
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
function Row({
  y,
  name,
  atEnd,
  children,
}: {
  y: number;
  name: string;
  atEnd: boolean;
  children: React.ReactNode;
}) {
  return (
    <g>
      <line x1={0} x2="100%" y1={y} y2={y} stroke="var(--rule)" strokeWidth={1.5} />
      {children}
      <text
        x={atEnd ? '100%' : 0}
        y={y - 11}
        textAnchor={atEnd ? 'end' : 'start'}
        fontSize={15}
        fill="var(--ink2)"
        stroke="var(--film)"
        strokeWidth={5}
        style={{ paintOrder: 'stroke' }}
      >
        {name}
      </text>
    </g>
  );
}
