import type { Part } from '@/core/circuit/schema';

/**
 * Circuit symbols of our own drawing in the manner of IEC 60617, on a level run: centred on (x, y), about 44 wide.
 * The wire is broken behind the symbol by the caller.
 */
export function PartSymbol({ kind, x, y, on }: { kind: Part['kind']; x: number; y: number; on: boolean }) {
  const stroke = { fill: 'none', stroke: 'currentColor', strokeWidth: 2.4 };
  switch (kind) {
    case 'fuse':
      return (
        <g {...stroke}>
          <rect x={x - 16} y={y - 7} width={32} height={14} fill="var(--sheet)" />
          <path d={`M${x - 16} ${y}h32`} strokeWidth={1.6} />
        </g>
      );
    case 'breaker':
      return (
        <g {...stroke}>
          <rect x={x - 16} y={y - 7} width={32} height={14} fill="var(--sheet)" />
          <path d={`M${x - 9} ${y + 7}l9 -14l9 14`} strokeWidth={1.6} />
        </g>
      );
    case 'switch':
    case 'timer':
    case 'relay':
      return (
        <g {...stroke}>
          <rect x={x - 22} y={y - 12} width={44} height={16} fill="var(--sheet)" stroke="none" />
          <path
            d={on ? `M${x - 18} ${y - 1}L${x + 18} ${y - 4}` : `M${x - 18} ${y - 1}L${x + 14} ${y - 12}`}
          />
          <circle cx={x - 18} cy={y} r={3.4} fill="var(--sheet)" />
          <circle cx={x + 18} cy={y} r={3.4} fill="var(--sheet)" />
          {kind === 'timer' ? <path d={`M${x - 7} ${y - 13}a8 8 0 0 1 14 0`} strokeWidth={1.8} /> : null}
          {kind === 'relay' ? <path d={`M${x} ${y - 6}v-9`} strokeWidth={1.8} strokeDasharray="2 3" /> : null}
        </g>
      );
    case 'pin':
      return (
        <g {...stroke} strokeWidth={2.2}>
          <rect x={x - 12} y={y - 4} width={22} height={8} fill="var(--sheet)" stroke="none" />
          <path d={`M${x - 11} ${y - 8}l9 8l-9 8M${x - 1} ${y - 8}l9 8l-9 8`} />
        </g>
      );
    case 'driver':
      return (
        <g {...stroke}>
          <rect x={x - 26} y={y - 16} width={52} height={32} fill="var(--sheet)" />
          <path d={`M${x - 13} ${y}h24m-8 -7l8 7l-8 7`} strokeWidth={2} />
        </g>
      );
    case 'transformer':
      return (
        <g {...stroke}>
          <circle cx={x - 7} cy={y} r={11} fill="var(--sheet)" />
          <circle cx={x + 7} cy={y} r={11} />
        </g>
      );
    // Bare wire on a run, or drawn by another figure: a load, a source, the fluid side.
    case 'source':
    case 'wire':
    case 'coil':
    case 'diode':
    case 'resistor':
    case 'lamp':
    case 'heater':
    case 'motor':
    case 'sensor3':
    case 'airSupply':
    case 'pump':
    case 'regulator':
    case 'filter':
    case 'check':
    case 'hose':
    case 'throttle':
    case 'silencer':
    case 'plug':
    case 'accumulator':
    case 'relief':
    case 'valve':
    case 'proportionalValve':
    case 'cylinder':
    case 'vacuumActuator':
    case 'pressureSwitch':
      return null;
    default:
      return kind satisfies never;
  }
}

/** The load as the fall itself: a vertical body between two heights. */
export function LoadSymbol({ kind, x, y1, y2 }: { kind: Part['kind']; x: number; y1: number; y2: number }) {
  const middle = (y1 + y2) / 2 + 8;
  const stroke = { fill: 'none', stroke: 'currentColor', strokeWidth: 2.4 };
  switch (kind) {
    case 'coil':
    case 'relay': {
      const loops = ' a 13 8.5 0 0 1 0 17'.repeat(4);
      const top = middle - 34;
      return (
        <g {...stroke}>
          <path d={`M${x} ${y1}V${top}${loops}V${y2}`} />
        </g>
      );
    }
    case 'motor':
      return (
        <g {...stroke}>
          <path d={`M${x} ${y1}V${middle - 20}M${x} ${middle + 20}V${y2}`} />
          <circle cx={x} cy={middle} r={20} fill="var(--sheet)" />
          <path d={`M${x - 8} ${middle + 8}v-16l8 10l8 -10v16`} strokeWidth={2} />
        </g>
      );
    case 'lamp':
      return (
        <g {...stroke}>
          <path d={`M${x} ${y1}V${middle - 16}M${x} ${middle + 16}V${y2}`} />
          <circle cx={x} cy={middle} r={16} fill="var(--sheet)" />
          <path d={`M${x - 11} ${middle - 11}l22 22m0 -22l-22 22`} strokeWidth={2} />
        </g>
      );
    // What else the volts may fall across: a way without a load is drawn as a box, never as nothing.
    case 'source':
    case 'fuse':
    case 'breaker':
    case 'wire':
    case 'pin':
    case 'switch':
    case 'diode':
    case 'resistor':
    case 'heater':
    case 'sensor3':
    case 'proportionalValve':
    case 'transformer':
    case 'driver':
    case 'timer':
      return (
        <g {...stroke}>
          <path d={`M${x} ${y1}V${middle - 24}M${x} ${middle + 24}V${y2}`} />
          <rect x={x - 9} y={middle - 24} width={18} height={48} fill="var(--sheet)" />
          {kind === 'heater' ? <path d={`M${x - 9} ${middle - 8}h18m-18 16h18`} strokeWidth={1.6} /> : null}
        </g>
      );
    // The fluid side has its own figures.
    case 'airSupply':
    case 'pump':
    case 'regulator':
    case 'filter':
    case 'check':
    case 'hose':
    case 'throttle':
    case 'silencer':
    case 'plug':
    case 'accumulator':
    case 'relief':
    case 'valve':
    case 'cylinder':
    case 'vacuumActuator':
    case 'pressureSwitch':
      return null;
    default:
      return kind satisfies never;
  }
}

/** A suppression diode beside the load, cathode up. */
export function AcrossDiode({ x, y1, y2 }: { x: number; y1: number; y2: number }) {
  const middle = (y1 + y2) / 2 + 8;
  return (
    <g fill="none" stroke="currentColor" strokeWidth={2}>
      <path d={`M${x - 34} ${y1 + 16}H${x}V${middle - 8}M${x} ${middle + 8}V${y2 - 14}H${x - 34}`} />
      <path d={`M${x - 9} ${middle + 8}h18l-9 -15z`} fill="var(--sheet)" />
      <path d={`M${x - 9} ${middle - 8}h18`} />
    </g>
  );
}

export function BatterySymbol({ x, y }: { x: number; y: number }) {
  return (
    <g fill="none" stroke="currentColor">
      <path d={`M${x} ${y - 17}v34`} strokeWidth={3} />
      <path d={`M${x - 7} ${y - 8}v16`} strokeWidth={5} />
    </g>
  );
}

/** An alternating supply: it has no plus. */
export function AlternatingSymbol({ x, y }: { x: number; y: number }) {
  return (
    <g fill="none" stroke="currentColor" strokeWidth={2}>
      <circle cx={x} cy={y} r={14} fill="var(--sheet)" />
      <path d={`M${x - 8} ${y}q4 -8 8 0t8 0`} />
    </g>
  );
}

export function ReturnSymbol({ x, y }: { x: number; y: number }) {
  return (
    <g fill="none" stroke="currentColor">
      <path d={`M${x} ${y - 17}v34`} strokeWidth={3} />
      <path d={`M${x + 8} ${y - 9}v18`} strokeWidth={3.4} />
    </g>
  );
}
