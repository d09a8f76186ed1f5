import { CircuitModel } from '@/core/circuit/model';
import { winchPack } from '@/core/templates/electrical';
import { findLanes } from '@/core/path/lanes';
import { placeTitles } from './trends';

const model = new CircuitModel(winchPack());
const speaker = { model, lanes: findLanes(model), gaugeUnit: 'bar' as const };

describe('what places are called', () => {
  const lost = (from: string, to: string) => ({
    kind: 'volts' as const,
    part: 'K1',
    limits: null,
    test: { kind: 'volts' as const, from, to, setup: { controls: { pendant: 'out' } } },
  });
  const insulation = (setup: object) => ({
    kind: 'insulation' as const,
    part: null,
    limits: null,
    test: { kind: 'insulation' as const, from: 'C', to: 'GND', testVolts: 250 as const, setup },
  });

  it('no two of one function alike: contacts by their points, the rest by their whole set-up', () => {
    const titles = placeTitles(speaker, [
      lost('P', 'M1'),
      lost('M1', 'P'),
      insulation({ isolated: ['G1'], lifted: [{ part: 'K1', node: 'C:out' }] }),
      insulation({ isolated: ['G1'] }),
      { kind: 'winding', part: 'K1', limits: null, test: null },
    ]);
    expect(new Set(titles).size).toBe(5);
    expect(titles[0]).toMatch(/^K1, volts lost \S+ to \S+, pendant out$/);
    expect(titles[2]).toMatch(/K1 off/);
    expect(titles[4]).toBe('K1, winding at 20 °C');
  });
});
