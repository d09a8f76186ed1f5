import type { KeyboardEvent } from 'react';
import {
  BLOCK,
  isFluidBlock,
  type PlacedBlock,
  type PlacedWire,
  type Schematic,
} from '@/core/schematic/schematicGraph';
import { AcrossDiode, BatterySymbol, LoadSymbol, PartSymbol } from '../path/PartSymbol';
import { FluidSymbol } from '../path/FluidSymbol';

/** What is written over the drawing: values while it is tried, marks of a comparison or of a finding. */
export interface SchematicLayers {
  /** Test point number of each node. */
  points?: ReadonlyMap<number, number>;
  /** "12.6 V" by node. */
  nodeText?: ReadonlyMap<number, string>;
  /** "1.4 A" by part. */
  partText?: ReadonlyMap<number, string>;
  /** Nodes that carry volts, or pressure, in what is tried. */
  live?: ReadonlySet<number>;
  /** Contacts that are closed in what is tried. */
  closed?: ReadonlySet<number>;
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
  const marks = pointMarks(wires, layers);
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
          {...(onNode
            ? {
                role: 'button',
                tabIndex: -1,
                'aria-label': `Node ${mark.number}`,
                onClick: () => onNode(mark.node),
              }
            : {})}
        >
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

/** One mark a node, on the longest level stretch of its wires: there is room for its value. */
function pointMarks(wires: readonly PlacedWire[], { points, nodeText }: SchematicLayers) {
  const best = new Map<number, { x: number; y: number; length: number }>();
  for (const { node, points: corners } of wires) {
    corners.slice(1).forEach((to, at) => {
      const from = corners[at]!;
      if (Math.abs(from.y - to.y) > 0.5) return;
      const length = Math.abs(to.x - from.x);
      if (length > (best.get(node)?.length ?? -1))
        best.set(node, { x: (from.x + to.x) / 2, y: from.y, length });
    });
  }
  return [...best].flatMap(([node, place]) => {
    const number = points?.get(node);
    if (number === undefined || place.length < 24) return [];
    return [{ node, number, x: place.x, y: place.y, text: nodeText?.get(node) ?? '' }];
  });
}

function Wire({ wire, live }: { wire: PlacedWire; live: boolean }) {
  const d = wire.points.map(({ x, y }, at) => `${at === 0 ? 'M' : 'L'}${x} ${y}`).join('');
  const ink = live ? 'var(--pencil)' : 'var(--ink)';
  if (!wire.fluid) return <path d={d} fill="none" stroke={ink} strokeWidth={live ? 2.6 : 1.8} />;
  return (
    <g fill="none" strokeLinejoin="round">
      <path d={d} stroke={ink} strokeWidth={6.5} />
      <path d={d} stroke="var(--sheet)" strokeWidth={3} />
    </g>
  );
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
          role: 'button',
          tabIndex: 0,
          'aria-label': `${title} ${words}`.trim(),
          'aria-pressed': chosen,
          onClick: () => onPart(target),
          onKeyDown: (event: KeyboardEvent) => {
            if (event.key !== 'Enter' && event.key !== ' ') return;
            event.preventDefault();
            onPart(target);
          },
        }
      : {};
  const text = part === undefined ? undefined : layers.partText?.get(part);
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
      {shape === 'run' ? <RunBody block={block} closed={has(layers.closed)} /> : null}
      {shape === 'sink' ? <SinkBody block={block} /> : null}
      {shape === 'source' ? <SourceBody block={block} /> : null}
      {shape === 'box' ? <BoxBody block={block} /> : null}
      {shape === 'plug' ? <PlugBody block={block} press={press} chosen={layers.chosen ?? null} /> : null}
      {text ? (
        <text
          x={shape === 'sink' ? x + 8 : x + width / 2}
          y={shape === 'run' ? y + BLOCK.axis - 12 : shape === 'sink' ? y + height / 2 + 5 : y + 12}
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

function fit(text: string, room: number): string {
  const most = Math.max(3, Math.floor(room / BLOCK.character));
  return text.length > most ? `${text.slice(0, most - 1).trimEnd()}…` : text;
}

function Names({
  block,
  x,
  y,
  anchor,
}: {
  block: PlacedBlock;
  x: number;
  y: number;
  anchor: 'middle' | 'start';
}) {
  const room = anchor === 'middle' ? block.width : block.x + block.width - x;
  return (
    <>
      <text
        x={x}
        y={y}
        textAnchor={anchor}
        fontSize={15}
        className="fig-bold"
        style={{ fill: 'currentColor' }}
      >
        {fit(block.title, room)}
      </text>
      {block.words ? (
        <text x={x} y={y + 17} textAnchor={anchor} fontSize={14} style={{ fill: 'var(--ink2)' }}>
          {fit(block.words, room)}
        </text>
      ) : null}
      <title>{`${block.title} ${block.words}`}</title>
    </>
  );
}

function RunBody({ block, closed }: { block: PlacedBlock; closed: boolean }) {
  const { x, y, width, height, ports, kind } = block;
  const middle = x + width / 2;
  const axis = y + BLOCK.axis;
  const second = ports.find((port) => port.side !== 'south' && port.y > BLOCK.axis);
  const names = <Names block={block} x={middle} y={y + height - 22} anchor="middle" />;
  const lone = ports.filter(({ side }) => side !== 'south').length === 1;
  const lead = { stroke: 'currentColor', strokeWidth: 2, fill: 'none' } as const;
  return (
    <>
      <path
        d={
          lone
            ? ports[0]!.side === 'west'
              ? `M${x} ${axis}H${middle - 12}`
              : `M${middle + 12} ${axis}H${x + width}`
            : `M${x} ${axis}H${x + width}`
        }
        {...lead}
      />
      {second ? (
        <path
          d={`M${x + second.x} ${y + second.y}H${second.side === 'east' ? middle + 18 : middle - 18}`}
          {...lead}
        />
      ) : null}
      {isFluidBlock(block) ? (
        <FluidSymbol kind={kind!} x={middle} y={axis} />
      ) : (
        <PartSymbol kind={kind!} x={middle} y={axis} on={closed} />
      )}
      {kind === 'pressureSwitch' ? (
        <path d={`M${middle} ${axis + 8}V${y + height}`} {...lead} strokeDasharray="3 3" />
      ) : null}
      {ports.flatMap((port) =>
        port.mark
          ? [
              <text
                key={port.id}
                x={x + port.x + (port.side === 'east' ? -3 : 3)}
                y={y + port.y - 5}
                textAnchor={port.side === 'east' ? 'end' : 'start'}
                fontSize={11}
                style={{ fill: 'var(--ink2)' }}
              >
                {port.mark}
              </text>,
            ]
          : [],
      )}
      {names}
    </>
  );
}

const SINK_X = 22;

function SinkBody({ block }: { block: PlacedBlock }) {
  const { x, y, height, ports, kind } = block;
  const body = x + SINK_X;
  const [top, bottom] = [y + ports[0]!.y, y + (ports.at(-1) ?? ports[0]!).y];
  const single = ports.length === 1;
  const textX = body + 26;
  return (
    <>
      {ports.map((port) => (
        <path
          key={port.id}
          d={`M${x} ${y + port.y}H${body}`}
          stroke="currentColor"
          strokeWidth={2}
          fill="none"
        />
      ))}
      {kind === 'diode' ? (
        <AcrossDiode x={body} y1={top - 16} y2={bottom + 14} />
      ) : kind === 'cylinder' ? (
        <FluidSymbol kind="cylinder" x={body} y={single ? top : (top + bottom) / 2} tall={bottom - top} />
      ) : kind === 'sensor3' ? (
        <LoadSymbol kind="resistor" x={body} y1={top} y2={bottom} />
      ) : (
        <LoadSymbol kind={kind!} x={body} y1={top} y2={bottom} />
      )}
      <Names block={block} x={textX} y={y + height / 2 - 6} anchor="start" />
    </>
  );
}

function SourceBody({ block }: { block: PlacedBlock }) {
  const { x, y, width, ports } = block;
  const [plus, minus] = [ports[0]!, ports[1]!];
  const body = x + width - 34;
  const grounded = minus.side === 'south';
  return (
    <>
      <path
        d={`M${x + width} ${y + plus.y}H${body}V${y + 40}`}
        fill="none"
        stroke="currentColor"
        strokeWidth={2}
      />
      <g transform={`rotate(90 ${body} ${y + 46})`}>
        <BatterySymbol x={body - 4} y={y + 46} />
      </g>
      {grounded ? (
        <path
          d={`M${body} ${y + 54}V${y + 84}M${body - 10} ${y + 84}h20M${body - 6} ${y + 89}h12M${body - 2.5} ${y + 94}h5`}
          fill="none"
          stroke="currentColor"
          strokeWidth={2}
        />
      ) : (
        <path
          d={`M${body} ${y + 54}V${y + minus.y}H${x + width}`}
          fill="none"
          stroke="currentColor"
          strokeWidth={2}
        />
      )}
      <text x={x + 4} y={y + 44} fontSize={15} className="fig-bold" style={{ fill: 'currentColor' }}>
        {fit(block.title, width - 60)}
      </text>
      <text x={x + 4} y={y + 104} fontSize={14} style={{ fill: 'var(--ink2)' }}>
        {fit(block.words, grounded ? width - 50 : width)}
      </text>
      <title>{`${block.title} ${block.words}`}</title>
    </>
  );
}

function BoxBody({ block }: { block: PlacedBlock }) {
  const { x, y, width, height, ports, kind } = block;
  return (
    <>
      <rect
        x={x + 14}
        y={y}
        width={width - 28}
        height={height}
        fill="var(--sheet)"
        stroke="currentColor"
        strokeWidth={2.2}
      />
      {ports.map((port) => (
        <g key={port.id}>
          <path
            d={port.side === 'west' ? `M${x} ${y + port.y}h14` : `M${x + width - 14} ${y + port.y}h14`}
            stroke="currentColor"
            strokeWidth={2}
          />
          {port.mark ? (
            <text
              x={port.side === 'west' ? x + 20 : x + width - 20}
              y={y + port.y + 5}
              textAnchor={port.side === 'west' ? 'start' : 'end'}
              fontSize={13}
              className="fig"
              style={{ fill: 'var(--ink2)' }}
            >
              {port.mark}
            </text>
          ) : null}
        </g>
      ))}
      {kind === 'transformer' ? (
        <PartSymbol kind="transformer" x={x + width / 2} y={y + height - 30} on={false} />
      ) : null}
      <text
        x={x + width / 2}
        y={y + 20}
        textAnchor="middle"
        fontSize={15}
        className="fig-bold"
        style={{ fill: 'currentColor' }}
      >
        {fit(block.title, width - 34)}
      </text>
      <text x={x + width / 2} y={y + 37} textAnchor="middle" fontSize={14} style={{ fill: 'var(--ink2)' }}>
        {fit(block.words, width - 34)}
      </text>
      <title>{`${block.title} ${block.words}`}</title>
    </>
  );
}

function PlugBody({
  block,
  press,
  chosen,
}: {
  block: PlacedBlock;
  press: (part: number) => object;
  chosen: number | null;
}) {
  const { x, y, width, height, ports, parts } = block;
  return (
    <>
      <rect
        x={x + 8}
        y={y + 24}
        width={width - 16}
        height={height - 24}
        fill="var(--sheet)"
        stroke="currentColor"
        strokeWidth={2.2}
      />
      <text
        x={x + width / 2}
        y={y + 16}
        textAnchor="middle"
        fontSize={15}
        className="fig-bold"
        style={{ fill: 'currentColor' }}
      >
        {block.title}
      </text>
      {parts.map((part, row) => {
        const west = ports[2 * row]!;
        const axis = y + west.y;
        return (
          <g key={part} {...press(part)} data-pin={west.mark}>
            <rect
              x={x + 10}
              y={axis - 15}
              width={width - 20}
              height={30}
              fill={chosen === part ? 'var(--pencil-t)' : 'transparent'}
            />
            <path d={`M${x} ${axis}H${x + width}`} stroke="currentColor" strokeWidth={2} />
            <PartSymbol kind="pin" x={x + width / 2 + 8} y={axis} on={false} />
            <text x={x + 14} y={axis - 4} fontSize={13} className="fig" style={{ fill: 'var(--ink2)' }}>
              {west.mark}
            </text>
          </g>
        );
      })}
    </>
  );
}
