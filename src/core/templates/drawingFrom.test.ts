import { checkCircuit } from '../draw/checkCircuit';
import { drawingFrom } from './drawingFrom';
import { TEMPLATES } from './templates';

const template = (id: string) => TEMPLATES.find((one) => one.id === id)!;

describe('a template to begin with', () => {
  it('says what was given and what follows from it, and nothing else of any label', () => {
    const given = drawingFrom(template('two-way-pair'), { volts: 25.2, ohms: 28, amps: 5 });
    const of = (ref: string) => given.parts.find((part) => part.ref === ref)!;
    expect(of('Y1')).toMatchObject({ ohms: 28 });
    expect(given.parts.find(({ kind }) => kind === 'source')!.assumed).toBeUndefined();
    expect(given.parts.find(({ kind }) => kind === 'fuse')).toMatchObject({ amps: 5 });
    expect(given.parts.find(({ kind }) => kind === 'fuse')!.assumed).toBeUndefined();
    const nothing = drawingFrom(template('two-way-pair'), {});
    expect(nothing.parts.find(({ kind }) => kind === 'source')!.assumed).toEqual(['volts']);
    expect(nothing.parts.find(({ kind }) => kind === 'fuse')!.assumed).toEqual(['amps']);
    expect(nothing.parts.find(({ ref }) => ref === 'Y1')).not.toHaveProperty('ohms');
  });

  it('claims no inductance, which nobody gave', () => {
    for (const one of TEMPLATES)
      expect(JSON.stringify(drawingFrom(one, { volts: 24, ohms: 20 }).parts)).not.toContain('henries');
  });

  it('can be diagnosed as it stands, and what it lacks is named', () => {
    for (const one of TEMPLATES) {
      const codes = checkCircuit(drawingFrom(one, {})).map(({ code }) => code);
      expect([one.id, codes]).not.toEqual([one.id, expect.arrayContaining(['broken'])]);
      expect([
        one.id,
        codes.filter((code) => code === 'usualFigure' || code === 'noValue').length,
      ]).not.toEqual([one.id, 0]);
    }
  });
});
