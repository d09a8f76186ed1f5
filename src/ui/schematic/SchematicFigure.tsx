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
          {...(onNode && mark.number !== null
            ? {
                role: 'button',
                tabIndex: -1,
                'aria-label': `Node ${mark.number}`,
                onClick: () => onNode(mark.node),
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

/** Where along a stretch a mark may sit, tried in this order. */
const PLACES = [0.5, 0.35, 0.65, 0.2, 0.8];
const CLEAR = 15;

/** One mark a node, on the longest level stretch of its wires that no other wire crosses there. */
function pointMarks(wires: readonly PlacedWire[], { points, nodeText }: SchematicLayers) {
  const stretches = wires.flatMap(({ node, points: corners }) =>
    corners.slice(1).map((to, at) => ({ node, from: corners[at]!, to })),
  );
  const level = new Map<number, typeof stretches>();
  for (const one of stretches) {
    if (Math.abs(one.from.y - one.to.y) > 0.5 || Math.abs(one.from.x - one.to.x) < 22) continue;
    level.set(one.node, [...(level.get(one.node) ?? []), one]);
  }
  const clear = (node: number, x: number, y: number) =>
    stretches.every(
      ({ node: other, from, to }) =>
        other === node ||
        x < Math.min(from.x, to.x) - CLEAR ||
        x > Math.max(from.x, to.x) + CLEAR ||
        y < Math.min(from.y, to.y) - CLEAR ||
        y > Math.max(from.y, to.y) + CLEAR,
    );
  return [...level].flatMap(([node, own]) => {
    const number = points?.get(node);
    const text = nodeText?.get(node) ?? '';
    if (number === undefined && !text) return [];
    const longest = own.toSorted((a, b) => Math.abs(b.to.x - b.from.x) - Math.abs(a.to.x - a.from.x));
    const places = longest.flatMap(({ from, to }) =>
      PLACES.map((share) => ({ x: from.x + share * (to.x - from.x), y: from.y })),
    );
    const place = places.find(({ x, y }) => clear(node, x, y)) ?? places[0]!;
    return [{ node, number: number ?? null, ...place, text }];
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

/** Air, oil or vacuum: a double line. */
function Pipe({ d }: { d: string }) {
  return (
    <g fill="none" strokeLinejoin="round">
      <path d={d} stroke="currentColor" strokeWidth={6.5} />
      <path d={d} stroke="var(--sheet)" strokeWidth={3} />
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

function RunBody({ block, closed }: { block: PlacedBlock; closed: ReadonlySet<string> | null }) {
  const { x, y, width, ports, kind } = block;
  const middle = x + width / 2;
  const axis = y + BLOCK.axis;
  const resting = ports.find(({ id }) => id.endsWith('|nc'));
  const sideClosed = (side: string) => closed?.has(`${block.id}|${side}`) ?? side === 'nc';
  const made =
    kind === 'relay'
      ? sideClosed(resting && ports.length === 2 ? 'nc' : 'no')
      : (closed?.has(block.id) ?? false);
  const second = kind === 'pressureSwitch' ? undefined : ports.find((port) => port.y > BLOCK.axis);
  const names = <Names block={block} x={middle} y={y + BLOCK.run - 22 + (second ? 30 : 0)} anchor="middle" />;
  const lone = ports.length === 1;
  const lead = { stroke: 'currentColor', strokeWidth: 2, fill: 'none' } as const;
  const through = !lone
    ? `M${x} ${axis}H${x + width}`
    : ports[0]!.side === 'west'
      ? `M${x} ${axis}H${middle - 12}`
      : `M${middle + 12} ${axis}H${x + width}`;
  return (
    <>
      {isFluidBlock(block) && kind !== 'pressureSwitch' ? (
        <Pipe d={through} />
      ) : (
        <path d={through} {...lead} />
      )}
      {second ? (
        <path
          d={`M${x + second.x} ${y + second.y}H${second.side === 'east' ? middle + 18 : middle - 18}`}
          {...lead}
        />
      ) : null}
      {kind === 'relay' && second ? (
        <ChangeOver x={middle} y={axis} east={second.side === 'east'} resting={sideClosed('nc')} />
      ) : isFluidBlock(block) ? (
        <FluidSymbol kind={kind!} x={middle} y={axis} />
      ) : (
        <PartSymbol kind={kind!} x={middle} y={axis} on={made} />
      )}
      {kind === 'pressureSwitch' ? (
        <>
          <Pipe d={`M${x} ${y + BLOCK.run + 14}H${middle - 34}V${axis + 22}`} />
          <path
            d={`M${middle - 34} ${axis + 22}L${middle - 4} ${axis + 12}`}
            {...lead}
            strokeDasharray="3 3"
          />
        </>
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

/** A change-over contact: its arm on the made side above, or the resting side 30 px below. */
function ChangeOver({ x, y, east, resting }: { x: number; y: number; east: boolean; resting: boolean }) {
  const to = east ? 1 : -1;
  const dot = { r: 3.4, fill: 'var(--sheet)' };
  return (
    <g fill="none" stroke="currentColor" strokeWidth={2.4}>
      <rect x={x - 20} y={y - 12} width={40} height={20} fill="var(--sheet)" stroke="none" />
      <path d={`M${x - 18 * to} ${y}L${x + 18 * to} ${resting ? y + 27 : y - 3}`} />
      <circle cx={x - 18 * to} cy={y} {...dot} />
      <circle cx={x + 18 * to} cy={y} {...dot} />
      <circle cx={x + 18 * to} cy={y + 30} {...dot} />
    </g>
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
  const body = x + width - 30;
  const grounded = minus.side === 'south';
  const alternating = block.shape === 'source' && block.mark === '~';
  const line = { fill: 'none', stroke: 'currentColor', strokeWidth: 2 } as const;
  return (
    <>
      <path d={`M${x + width} ${y + plus.y}H${body}V${y + (alternating ? 34 : 40)}`} {...line} />
      {alternating ? (
        <g {...line}>
          <circle cx={body} cy={y + 48} r={14} fill="var(--sheet)" />
          <path d={`M${body - 8} ${y + 48}q4 -8 8 0t8 0`} />
        </g>
      ) : (
        <g transform={`rotate(90 ${body} ${y + 44})`}>
          <BatterySymbol x={body - 4} y={y + 44} />
        </g>
      )}
      <path
        d={
          grounded
            ? `M${body} ${y + (alternating ? 62 : 52)}V${y + 80}M${body - 10} ${y + 80}h20M${body - 6} ${y + 85}h12M${body - 2.5} ${y + 90}h5`
            : `M${body} ${y + (alternating ? 62 : 52)}V${y + minus.y}H${x + width}`
        }
        {...line}
      />
      <text x={x + 2} y={y + 40} fontSize={15} className="fig-bold" style={{ fill: 'currentColor' }}>
        {fit(block.title, width - 52)}
      </text>
      <text x={x + 2} y={y + 57} fontSize={14} style={{ fill: 'var(--ink2)' }}>
        {fit(block.words, width - 52)}
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
