import { listFaults } from '../diagnosis/faults';
import { workingPatterns } from '../diagnosis/patterns';
import { demoCircuits } from '@/testing/demoCircuits';
import { CircuitModel } from './model';
import type { Edit } from './edits';
import { TEMPLATES } from '../templates/templates';

/** Changes nothing, and keeps the solver from taking a short way for the fault beside it. */
const HERE = { branch: 0, end: 'a' } as const;
const NOTHING: Edit = { type: 'bridge', from: HERE, to: HERE, ohms: 1 };
const SEVERITIES = [0, 0.5, 1];
const MICROVOLT = 1e-6;

describe.each([...demoCircuits(), ...TEMPLATES.map(({ id, build }) => ({ name: id, circuit: build() }))])(
  '$name',
  ({ circuit }) => {
    it('stands as it would if every fault were solved from the beginning, also those that carry nothing', () => {
      const model = new CircuitModel(circuit);
      const apart: string[] = [];
      for (const { setup } of workingPatterns(model)) {
        const solver = model.situation(setup);
        for (const { ref, fault, variants, severity } of listFaults(model)) {
          for (const share of severity ? SEVERITIES : [0]) {
            const size = severity ? severity.least * (severity.most / severity.least) ** share : 1;
            for (const { edits } of variants) {
              const short = solver.solve({ mode: 'live' }, edits(size));
              const long = solver.solve({ mode: 'live' }, [...edits(size), NOTHING]);
              const moved = short.state.some((one, at) => one !== long.state[at]);
              const off = model.compiled.nodeNames.some((_name, node) => {
                const [one, other] = [short, long].map(({ changed }) =>
                  changed.pairVolts(node, model.compiled.frame),
                );
                return Number.isNaN(one!) !== Number.isNaN(other!) || Math.abs(one! - other!) > MICROVOLT;
              });
              if (moved || off) apart.push(`${ref} ${fault} ${size} ${JSON.stringify(setup)}`);
            }
          }
        }
      }
      expect(apart).toEqual([]);
    });
  },
);
