import { pointMarks } from '@/core/schematic/pointMarks';
import { BLOCK, type PlacedBlock, type PlacedWire, type Schematic } from '@/core/schematic/schematic';
import { Pipe, pressable } from '../figure';
import { BoxBody, PlugBody, RunBody, SINK_X, SinkBody, SourceBody } from './blockBodies';

/** What is written over the drawing: values while it is tried, marks of a comparison or of a finding. */
export interface SchematicLayers {
  /** Test point number of each node. */
  points?: ReadonlyMap<number, number>;
  /** "12.6 V" by node. */
  nodeText?: ReadonlyMap<number, string>;
  /** "1.4 A" by block: a relay's coil is "K1", its contacts "K1/1", "K1/2". */
  blockText?: ReadonlyMap<string, string>;
  /** Nodes that carry volts, or pressure, in what is tried. */
  live?: ReadonlySet<number>;
  /** Contacts that are closed in what is tried: by block, a relay's by block and side, "K1/1|no". At rest where nothing is tried. */
  closed?: ReadonlySet<string>;
  chosen?: number | null;
  wrong?: ReadonlySet<number>;
  changed?: ReadonlySet<number>;
}

/** A whole circuit as a plain schematic, for building and printing. */
export function SchematicFigure({
  schematic,
  layers,
  onPart,
  onNode,
}: {
  schematic: Schematic;
  layers: SchematicLayers;
  onPart?: (part: number) => void;
  onNode?: (node: number) => void;
}) {
  const { width, height, blocks, wires } = schematic;
  const marks = pointMarks(wires, layers.points, layers.nodeText);
  return (
    <svg
      className="figure block"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="group"
      aria-label="Schematic of the circuit"
    >
      {wires.map((wire) => (
        <Wire key={wire.id} wire={wire} live={layers.live?.has(wire.node) ?? false} />
      ))}
      {blocks.map((block) => (
        <Block key={block.id} block={block} layers={layers} {...(onPart ? { onPart } : {})} />
      ))}
      {marks.map((mark) => (
        <g
          key={mark.node}
          {...(onNode && mark.number !== null
            ? {
                ...pressable(() => onNode(mark.node)),
                tabIndex: -1,
                'aria-label': `Node ${mark.number}`,
              }
            : {})}
        >
          {mark.number === null ? null : (
            <>
              <circle
                cx={mark.x}
                cy={mark.y}
                r={10.5}
                fill="var(--sheet)"
                stroke="var(--ink)"
                strokeWidth={1.8}
              />
              <text
                x={mark.x}
                y={mark.y + 5}
                textAnchor="middle"
                fontSize={mark.number > 99 ? 11 : 13}
                className="point-number fig-bold"
              >
                {mark.number}
              </text>
            </>
          )}
          {mark.text ? (
            <text
              x={mark.x}
              y={mark.y - 15}
              textAnchor="middle"
              fontSize={15}
              className="fig-bold"
              style={{ fill: 'var(--pencil)' }}
            >
              {mark.text}
            </text>
          ) : null}
        </g>
      ))}
    </svg>
  );
}

function Wire({ wire, live }: { wire: PlacedWire; live: boolean }) {
  const d = wire.points.map(({ x, y }, at) => `${at === 0 ? 'M' : 'L'}${x} ${y}`).join('');
  const ink = live ? 'var(--pencil)' : 'var(--ink)';
  if (!wire.fluid) return <path d={d} fill="none" stroke={ink} strokeWidth={live ? 2.6 : 1.8} />;
  return <Pipe d={d} ink={ink} />;
}

function Block({
  block,
  layers,
  onPart,
}: {
  block: PlacedBlock;
  layers: SchematicLayers;
  onPart?: (part: number) => void;
}) {
  const { x, y, width, height, shape, parts, ports, title, words } = block;
  const part = parts[0];
  if (shape === 'junction') return <circle cx={x + 3} cy={y + 3} r={4} fill="var(--ink)" />;
  if (shape === 'earth') {
    const port = ports[0]!;
    const [ex, ey] = [x + width / 2, y + port.y];
    return (
      <g fill="none" stroke="var(--ink)" strokeWidth={2}>
        <path
          d={`M${x + port.x} ${ey}H${ex}v8M${ex - 10} ${ey + 8}h20M${ex - 6} ${ey + 13}h12M${ex - 2.5} ${ey + 18}h5`}
        />
      </g>
    );
  }
  const has = (set: ReadonlySet<number> | undefined) => parts.some((one) => set?.has(one));
  const ink = has(layers.wrong) ? 'var(--stamp)' : has(layers.changed) ? 'var(--pencil)' : 'var(--ink)';
  const chosen = parts.includes(layers.chosen ?? -1);
  const press = (target: number) =>
    onPart
      ? {
          ...pressable(() => onPart(target)),
          tabIndex: 0,
          'aria-label': `${title} ${words}`.trim(),
          'aria-pressed': chosen,
        }
      : {};
  const text = layers.blockText?.get(block.id);
  return (
    <g style={{ color: ink }} data-block={block.id} {...(shape === 'plug' ? {} : press(part!))}>
      <rect
        className="focus-box"
        x={x - 3}
        y={y - 3}
        width={width + 6}
        height={height + 6}
        fill={chosen ? 'var(--pencil-t)' : 'transparent'}
        stroke="transparent"
        strokeWidth={3}
      />
      {shape === 'run' ? <RunBody block={block} closed={layers.closed ?? null} /> : null}
      {shape === 'sink' ? <SinkBody block={block} /> : null}
      {shape === 'source' ? <SourceBody block={block} /> : null}
      {shape === 'box' ? <BoxBody block={block} /> : null}
      {shape === 'plug' ? <PlugBody block={block} press={press} chosen={layers.chosen ?? null} /> : null}
      {text ? (
        <text
          x={shape === 'sink' ? x + SINK_X + 26 : x + width / 2}
          y={
            shape === 'run'
              ? y + BLOCK.axis - 12
              : shape === 'sink'
                ? y + height / 2 + 30
                : shape === 'box'
                  ? y - 6
                  : y + 12
          }
          textAnchor={shape === 'sink' ? 'start' : 'middle'}
          fontSize={15}
          className="fig-bold"
          style={{ fill: 'var(--pencil)' }}
        >
          {text}
        </text>
      ) : null}
    </g>
  );
}
