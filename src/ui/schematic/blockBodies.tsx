import { BLOCK, isFluidBlock, type PlacedBlock } from '@/core/schematic/schematic';
import { fit, Pipe } from '../figure';
import { AcrossDiode, AlternatingSymbol, BatterySymbol, LoadSymbol, PartSymbol } from '../path/PartSymbol';
import { FluidSymbol } from '../path/FluidSymbol';

/** What stands inside the blocks of a schematic, by their shape. */

function cut(text: string, room: number): string {
  return fit(text, room, BLOCK.character);
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
        {cut(block.title, room)}
      </text>
      {block.words ? (
        <text x={x} y={y + 17} textAnchor={anchor} fontSize={14} style={{ fill: 'var(--ink2)' }}>
          {cut(block.words, room)}
        </text>
      ) : null}
      <title>{`${block.title} ${block.words}`}</title>
    </>
  );
}

export function RunBody({ block, closed }: { block: PlacedBlock; closed: ReadonlySet<string> | null }) {
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

export const SINK_X = 22;

export function SinkBody({ block }: { block: PlacedBlock }) {
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

export function SourceBody({ block }: { block: PlacedBlock }) {
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
        <AlternatingSymbol x={body} y={y + 48} />
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
        {cut(block.title, width - 52)}
      </text>
      <text x={x + 2} y={y + 57} fontSize={14} style={{ fill: 'var(--ink2)' }}>
        {cut(block.words, width - 52)}
      </text>
      <title>{`${block.title} ${block.words}`}</title>
    </>
  );
}

export function BoxBody({ block }: { block: PlacedBlock }) {
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
        {cut(block.title, width - 34)}
      </text>
      <text x={x + width / 2} y={y + 37} textAnchor="middle" fontSize={14} style={{ fill: 'var(--ink2)' }}>
        {cut(block.words, width - 34)}
      </text>
      <title>{`${block.title} ${block.words}`}</title>
    </>
  );
}

export function PlugBody({
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
