import type { Energy } from '@/core/circuit/energies';
import type { StillLive } from '@/core/safety/isolationPlan';
import type { GaugeMark } from '@/core/units/quantities';
import { pressureWords, quantity } from './readings';

/** What is said of each energy: its name, its danger in one line, how it is made safe, how that is shown. */
export const ENERGY_WORDS: Readonly<
  Record<Energy, { name: string; say: string; how: string; release: string; proof: string }>
> = {
  line: {
    name: 'Line supply',
    say: 'Mains is lethal. Arc can burn at a distance.',
    how: 'Isolator off and locked, by a qualified person',
    release: 'Capacitors bled, measured at 0',
    proof: 'Live, dead, live: every pole to every pole and to earth',
  },
  control: {
    name: 'Control supply',
    say: 'The main switch may not kill this.',
    how: 'Its own switch or fuse off and locked',
    release: 'Nothing stored, or bled',
    proof: 'Each control terminal, not only power',
  },
  battery: {
    name: 'Battery or DC supply',
    say: 'No metal jewellery. Of a battery the ground lead is off first, on last.',
    how: 'Loads off, then its switch off and locked, or the ground lead off',
    release: 'Second battery too; wait for the controllers to sleep',
    proof: 'Across the dead cable end and the chassis',
  },
  capacitor: {
    name: 'Charged capacitor',
    say: 'Wait the marked time. Then measure.',
    how: 'Supply off, marked time waited',
    release: 'Bled through a rated resistor, never a screwdriver',
    proof: 'Measured below the machine’s own limit',
  },
  air: {
    name: 'Air',
    say: 'Air stores energy. Vent both sides.',
    how: 'Supply valve closed and locked',
    release: 'Vented on both sides, load held',
    proof: 'Gauge at zero, and the function tried',
  },
  oil: {
    name: 'Oil or water pressure',
    say: 'Never feel for a leak by hand. Injection is an emergency even if it looks small: hospital now.',
    how: 'Load lowered, engine stopped, valve levers worked',
    release: 'Accumulators and both sides vented, waited',
    proof: 'Gauge at zero at the port',
  },
  vacuum: {
    name: 'Vacuum',
    say: 'Vacuum holds. Venting lets go.',
    how: 'What it holds is supported, then vented slowly',
    release: 'Vented',
    proof: 'Gauge at zero, free to move',
  },
  heldLoad: {
    name: 'Raised or held load',
    say: 'Down is the safe position. Block it: oil or air alone is no block.',
    how: 'Rested on the ground or a rated mechanical stop',
    release: 'Weight is off the holding part',
    proof: 'Gently tried to move; the block looked at',
  },
  spring: {
    name: 'Spring',
    say: 'Releasing the coil or air frees the load.',
    how: 'Load held first; spring caged only with the maker’s tool',
    release: 'Spring at rest',
    proof: 'Load rests without the brake',
  },
  heat: {
    name: 'Heat',
    say: 'Hot parts burn and light what lies on them.',
    how: 'Switched off and left to cool',
    release: 'Cooled to where a hand can stay',
    proof: 'Measured, not touched first',
  },
  refrigerant: {
    name: 'Refrigerant',
    say: 'Licensed only. No open flame near leaked gas.',
    how: 'Recovered by a certified person; ventilated',
    release: 'Recovered',
    proof: 'Gauges at zero on both sides',
  },
  moving: {
    name: 'Moving parts',
    say: 'It may start by itself. Guards on, no loose clothes.',
    how: 'Every way to start it off: key, remote, timer, automatic',
    release: 'Waited for the full stop',
    proof: 'Start tried, then returned to off',
  },
};

export function stillLiveWords({ node, volts, kPa }: StillLive, unit: GaugeMark): string {
  return `${node} ${volts !== undefined ? quantity('volts', volts) : pressureWords(kPa ?? 0, unit)}`;
}

/** How a point of the isolation plan is called: what stands for an energy without a switch is told by that energy. */
export function pointTitle(point: string): string {
  const [, energy, names] = /^(\w+): (.+)$/.exec(point) ?? [];
  return energy && energy in ENERGY_WORDS
    ? `${names}, ${ENERGY_WORDS[energy as Energy].name.toLowerCase()}`
    : point;
}
