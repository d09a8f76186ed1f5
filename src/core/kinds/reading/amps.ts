import { InputError } from '../../circuit/inputError';
import { findPart } from '../../circuit/situation';
import { branchAmps, conductance, limitedBranches, limitedVolts } from '../../circuit/world';
import { ampsCommon, ampsScatter } from '../../diagnosis/scatter';
import { digitalSigma, sizeStep } from './meters';
import { defineReading } from './module';

const RANGES = [0.6, 6, 60, 600];
/** What a clamp shows round a dead wire, one standard deviation: its zero wanders by a few hundredths. */
const CLAMP_ZERO_AMPS = 0.02;

export const amps = defineReading<'amps'>()({
  dead: false,
  mechanical: false,
  school: 'loadedVoltsFirst',
  minutes: 1,
  mistakeRate: 0.02,
  shows: {
    is: 'figure',
    quantity: 'amps',
    over: Infinity,
    unsigned: true,
    leastSigma: CLAMP_ZERO_AMPS,
    withSupply: true,
    meterSigma: (size, meter) => digitalSigma(RANGES, size, meter),
    mistakeDensity: (value) => 0.15 / (Math.abs(Number(value)) + 0.05),
    step: sizeStep(0.1, 0.07),
  },
  bind: (model, _solver, { through }, field) => {
    const { compiled } = model;
    const { part, branches } = compiled.parts[findPart(compiled, through, `${field}.through`)]!;
    const branch = branches.find(({ domain }) => domain === 'electrical');
    if (!branch) throw new InputError(`${field}.through`, `amps through "${through}": clamp a wire of it`);
    const sign = part.kind === 'source' ? -1 : 1;
    const size = compiled.alternating[branch.a] === 1 || compiled.alternating[branch.b] === 1;
    return [
      { mode: 'live' },
      (world) => {
        const own = branchAmps(world, branch.index);
        const sigma = ampsScatter(model, world, branch.index);
        const shown = (value: number) => (size ? Math.abs(value) : sign * value);
        const moved = ampsCommon(world, branch.index);
        const common = moved && { ...moved, slope: (size ? 1 : sign) * moved.slope };
        const found = {
          type: 'number',
          mean: shown(own),
          sigma,
          loose: world.chatters,
          ...(common && { common }),
        } as const;
        const limited = limitedBranches(world);
        if (limited.length === 0) return found;
        const { a, b } = world.edges[branch.index]!;
        const given = conductance(world, branch.index) * limitedVolts(world, a, b);
        const off = limited.includes(branch.index) ? 0 : shown(own - given);
        return { ...found, instead: { mean: off, sigma: 0 } };
      },
    ];
  },
});
