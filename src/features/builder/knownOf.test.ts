import { singleCoil } from '@/core/templates/electrical';
import { knownOf } from './knownOf';

describe('what other functions of a machine have', () => {
  const one = { ...singleCoil({ ohms: 7 }), controls: { lever: ['rest', 'up'] } };
  const other = { ...singleCoil({ ohms: 9 }), controls: { lever: ['rest', 'down'], key: ['off', 'on'] } };

  it('a part is what the first function says, and a control has every position that any has', () => {
    const { parts, controls } = knownOf([one, other]);
    expect(parts.filter(({ ref }) => ref === 'Y1')).toEqual([expect.objectContaining({ ohms: 7 })]);
    expect(controls).toEqual({ lever: ['rest', 'up', 'down'], key: ['off', 'on'] });
  });

  it('is nothing on a machine without functions', () => {
    expect(knownOf([])).toEqual({ parts: [], controls: {} });
  });
});
