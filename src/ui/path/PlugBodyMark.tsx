import type { PlugBody } from '@/core/path/plugBodies';
import type { Standing } from '@/core/path/standing';
import { STATE_INK } from './pathInk';
import { PartSymbol } from './PartSymbol';

/** A connector's housing across its pins; broken where the asked set-up has it apart. */
export function PlugBodyMark({
  body: { connector, pins, outline, open, above },
  apart,
  standings,
}: {
  body: PlugBody;
  apart: ReadonlySet<number>;
  standings: readonly Standing[];
}) {
  const d = outline.map(({ x, y }, at) => `${at === 0 ? 'M' : 'L'}${x} ${y}`).join('') + (open ? '' : 'Z');
  return (
    <g data-plug={connector}>
      <path
        d={d}
        fill="none"
        stroke="var(--edge)"
        strokeWidth={1.6}
        strokeDasharray={pins.some((pin) => apart.has(pin)) ? '5 5' : undefined}
      />
      {above.map(({ part, x, y }) => (
        <g key={part} style={{ color: STATE_INK[standings[part]!.state] }} data-part-of={connector}>
          <PartSymbol kind="pin" x={x} y={y} on={false} />
        </g>
      ))}
      <title>{connector}</title>
    </g>
  );
}
