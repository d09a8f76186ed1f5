import oracles from '../oracles.json';
import { codes, fill } from '../testing/fill';
import type { FunctionsAnswer } from './functions';

const PARTS = {
  lift_up: ['main_fuse', 'ctrl_relay', 'gnd_1', 'drv_A', 'coil_up', 'pump'],
  lift_down: ['main_fuse', 'ctrl_relay', 'gnd_1', 'drv_B', 'coil_down'],
  tilt: ['main_fuse', 'ctrl_relay', 'gnd_2', 'drv_C', 'coil_tilt', 'pump'],
  horn: ['main_fuse', 'gnd_2', 'horn'],
};
const matrix = (states: Partial<Record<keyof typeof PARTS, string | null>>) =>
  fill<FunctionsAnswer>('functions', {
    functions: Object.entries(PARTS).map(([name, parts]) => ({
      name,
      parts,
      state: states[name as keyof typeof PARTS],
    })),
  });

describe('the function matrix', () => {
  it.each(['L04a', 'L04b', 'L04c', 'L04d', 'L04e'] as const)('%s', (id) => {
    const { in: seen, out } = oracles[id];
    const states = Object.fromEntries(
      Object.entries(seen).map(([name, works]) => [name, works ? 'works' : 'dead']),
    );
    const { suspect } = matrix(states);
    const wanted = out.suspects === '(none)' ? [] : out.suspects.split(', ');
    expect(suspect.map(({ part }) => part).sort()).toEqual(wanted.sort());
    expect(suspect.every(({ share }) => Math.abs(share - 1 / wanted.length) < 1e-9)).toBe(true);
  });
  it('nothing left says more than one fault, or a wrong table', () => {
    const answer = matrix({ lift_up: 'works', lift_down: 'dead', tilt: 'dead', horn: 'works' });
    expect(codes(answer)).toEqual(['moreThanOne']);
  });
  it('weak fails; the untried function that splits the suspects is asked for, or none', () => {
    expect(matrix({ lift_up: 'weak' })).toMatchObject({ next: 'lift_down', cleared: [] });
    expect(matrix({ lift_up: 'dead', lift_down: 'works', tilt: 'dead', horn: 'works' }).next).toBeNull();
    expect(matrix({ horn: 'dead', tilt: 'works' })).toMatchObject({
      suspect: [{ part: 'horn', share: 1 }],
      next: null,
    });
  });
  it('with nothing failing nothing is suspected', () => {
    expect(matrix({ horn: 'works' })).toMatchObject({ suspect: [], cleared: ['main_fuse', 'gnd_2', 'horn'] });
    expect(codes(matrix({}))).toEqual(['nothingTried']);
  });
});
