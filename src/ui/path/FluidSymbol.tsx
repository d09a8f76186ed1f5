import type { Part } from '@/core/circuit/schema';

/**
 * Air, oil and vacuum parts of our own drawing in the manner of ISO 1219: centred on (x, y), about 44 wide. `tall` is
 * the height between a cylinder's two ports.
 */
export function FluidSymbol({
  kind,
  x,
  y,
  tall = 60,
}: {
  kind: Part['kind'];
  x: number;
  y: number;
  tall?: number;
}) {
  const stroke = { fill: 'var(--sheet)', stroke: 'currentColor', strokeWidth: 2.2 };
  switch (kind) {
    case 'airSupply':
      return (
        <g {...stroke}>
          <circle cx={x} cy={y} r={15} />
          <path d={`M${x + 15} ${y}l-11 -7v14z`} />
        </g>
      );
    case 'pump':
      return (
        <g {...stroke}>
          <circle cx={x} cy={y} r={15} />
          <path d={`M${x + 15} ${y}l-11 -7v14z`} fill="currentColor" />
        </g>
      );
    case 'regulator':
      return (
        <g {...stroke}>
          <rect x={x - 15} y={y - 13} width={30} height={26} />
          <path d={`M${x - 9} ${y}h16m-6 -5l6 5l-6 5`} fill="none" />
          <path d={`M${x} ${y - 13}l-4 -3l8 -4l-8 -4`} fill="none" strokeWidth={1.6} />
        </g>
      );
    case 'filter':
      return (
        <g {...stroke}>
          <path d={`M${x - 17} ${y}l17 -15l17 15l-17 15z`} />
          <path d={`M${x} ${y - 15}v30`} strokeDasharray="4 3" fill="none" />
        </g>
      );
    case 'check':
      return (
        <g {...stroke}>
          <path d={`M${x - 9} ${y - 11}l14 11l-14 11`} fill="none" />
          <circle cx={x + 2} cy={y} r={6} />
        </g>
      );
    case 'relief':
      // Pressure from below lifts what a spring holds shut.
      return (
        <g {...stroke}>
          <rect x={x - 11} y={y - 11} width={22} height={22} />
          <path
            d={`M${x - 5} ${y + 11}v-16m-4 6l4 -6l4 6M${x + 5} ${y - 11}l-4 -3l8 -3l-8 -3`}
            fill="none"
            strokeWidth={1.8}
          />
        </g>
      );
    case 'throttle':
      return (
        <g {...stroke} fill="none">
          <path d={`M${x - 12} ${y - 9}q12 9 24 0M${x - 12} ${y + 9}q12 -9 24 0`} />
        </g>
      );
    case 'hose':
      return (
        <g {...stroke} fill="none">
          <path d={`M${x - 14} ${y}q7 -11 14 0t14 0`} />
        </g>
      );
    case 'silencer':
      return (
        <g {...stroke}>
          <path d={`M${x - 12} ${y - 8}h18l10 8l-10 8h-18z`} />
          <path d={`M${x - 4} ${y - 8}v16M${x + 3} ${y - 8}v16`} fill="none" strokeWidth={1.6} />
        </g>
      );
    case 'plug':
      return (
        <g {...stroke}>
          <path d={`M${x - 8} ${y - 9}l16 18m0 -18l-16 18`} fill="none" />
        </g>
      );
    case 'accumulator':
      // A vessel with gas over its oil.
      return (
        <g {...stroke}>
          <rect x={x - 9} y={y - 16} width={18} height={32} rx={9} />
          <path d={`M${x - 9} ${y}h18M${x - 4} ${y - 10}h8l-4 6z`} fill="none" strokeWidth={1.8} />
        </g>
      );
    case 'proportionalValve':
      // One place that opens bit by bit: the two lines beside it say so.
      return (
        <g {...stroke}>
          <rect x={x - 20} y={y - 14} width={40} height={28} />
          <path d={`M${x} ${y + 10}v-20m-4 5l4 -5l4 5`} fill="none" strokeWidth={1.8} />
          <path d={`M${x - 22} ${y - 18}h44m-44 36h44`} fill="none" strokeWidth={1.6} />
        </g>
      );
    case 'valve':
      return (
        <g {...stroke}>
          <rect x={x - 26} y={y - 14} width={26} height={28} />
          <rect x={x} y={y - 14} width={26} height={28} />
          <path d={`M${x - 13} ${y + 10}v-20m-4 5l4 -5l4 5`} fill="none" strokeWidth={1.8} />
          <path
            d={`M${x + 7} ${y - 10}h12m-6 0v6M${x + 7} ${y + 10}h12m-6 0v-6`}
            fill="none"
            strokeWidth={1.8}
          />
        </g>
      );
    case 'vacuumActuator':
      return (
        <g {...stroke}>
          <path d={`M${x - 12} ${y - 14}h16q10 14 0 28h-16z`} />
          <path d={`M${x - 2} ${y - 14}v28M${x + 9} ${y}h12`} fill="none" />
        </g>
      );
    case 'pressureSwitch':
      return (
        <g {...stroke}>
          <rect x={x - 22} y={y - 12} width={44} height={16} stroke="none" />
          <path d={`M${x - 18} ${y - 1}L${x + 14} ${y - 12}`} fill="none" />
          <circle cx={x - 18} cy={y} r={3.4} />
          <circle cx={x + 18} cy={y} r={3.4} />
          <path d={`M${x - 7} ${y + 16}h14l-7 -9z`} />
        </g>
      );
    case 'cylinder':
      return (
        <g {...stroke}>
          <rect x={x - 12} y={y - tall / 2 + 6} width={24} height={Math.max(24, tall - 12)} />
          <path d={`M${x - 12} ${y}h24M${x} ${y}v${tall / 2 + 4}`} fill="none" />
        </g>
      );
    // The electrical side has its own figures.
    case 'source':
    case 'transformer':
    case 'fuse':
    case 'breaker':
    case 'wire':
    case 'pin':
    case 'switch':
    case 'relay':
    case 'coil':
    case 'diode':
    case 'resistor':
    case 'lamp':
    case 'heater':
    case 'motor':
    case 'sensor3':
    case 'driver':
    case 'timer':
      return null;
    default:
      return kind satisfies never;
  }
}
