import { ENERGIES } from '@/core/circuit/energies';
import { CircuitModel } from '@/core/circuit/model';
import { findCodes } from '@/core/codes/findCodes';
import { proofList } from '@/core/job/proofList';
import { reduceJob } from '@/core/job/reduceJob';
import { findLanes } from '@/core/path/lanes';
import { isolationPlan } from '@/core/safety/isolationPlan';
import { TEMPLATES } from '@/core/templates/templates';
import { codeExtras, codeName, systemName } from './codes';
import { ENERGY_WORDS, stillLiveWords } from './energies';
import { proofWords } from './proofs';

/** What a person reads must be words: no names of the program's own, nothing undefined. */
const ODD = /undefined|NaN|null|\[object|[a-z][A-Z]/;

describe('words of the steps', () => {
  it('name every energy with its danger, how it is shut off, let go and shown', () => {
    for (const energy of ENERGIES) {
      const words = ENERGY_WORDS[energy];
      expect(Object.values(words).filter((text) => text.trim() === '')).toEqual([]);
    }
    expect(ENERGY_WORDS.refrigerant.say).toMatch(/Licensed only/);
    expect(ENERGY_WORDS.oil.say).toMatch(/hospital/);
    expect(stillLiveWords({ node: 'B+', volts: 25.2 }, 'bar')).toBe('B+ 25.2 V');
    expect(stillLiveWords({ node: 'main', kPa: 700 }, 'bar')).toBe('main 7 bar');
    expect(stillLiveWords({ node: 'main', kPa: 700 }, 'psi')).toBe('main 102 psi');
  });

  it.each(TEMPLATES.map(({ id, build }) => [id, build] as const))(
    'say what has to be shut off and proved on %s',
    (_id, build) => {
      const model = new CircuitModel(build());
      const speaker = { model, lanes: findLanes(model), gaugeUnit: 'bar' as const };
      for (const { energy, label, stillLive } of isolationPlan(model).map((point) => ({
        ...point,
        stillLive: 'stillLive' in point ? (point.stillLive as Parameters<typeof stillLiveWords>[0][]) : [],
      }))) {
        expect(ENERGY_WORDS[energy].name).not.toBe('');
        expect(label).not.toMatch(/undefined/);
        for (const one of stillLive) expect(stillLiveWords(one, 'bar')).toMatch(/ (V|bar)$/);
      }
      const proofs = proofList(model, reduceJob([]));
      expect(proofs.length).toBeGreaterThan(0);
      for (const proof of proofs)
        expect(proofWords(speaker, proof).replace(/Q\d|Y\d\w*/g, '')).not.toMatch(/undefined|NaN|\[object/);
    },
  );

  it.each([
    ['SPN 523 FMI 31', 'SPN 523 FMI 31', 'SPN and FMI'],
    ['14-05', '14-5', 'a pair of numbers'],
    ['P0243-13', 'P0243-13', 'code and failure type'],
    ['P0045', 'P0045', 'five characters'],
  ])('call a code by its notation: %s', (text, name, system) => {
    const [code] = findCodes(text);
    expect([codeName(code!), systemName(code!.system)]).toEqual([name, system]);
    expect(code!.text).not.toMatch(ODD);
  });

  it('say what else a notation tells', () => {
    const [code] = findCodes('18FECA00#04FFB804030AFFFF');
    expect(codeExtras(code!)).toEqual(expect.arrayContaining(['from address 0', 'active']));
    expect(
      codeExtras({ system: 'J1939', component: 1, failureMode: 2, text: '', count: 1, active: false }),
    ).toEqual(['counted 1 time', 'stored, not active now']);
    expect(systemName('own')).toBe('own');
  });
});
