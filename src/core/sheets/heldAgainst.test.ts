import { shopMarks } from '../tables/marks';
import { heldAgainst, rowOf, uniqueRows } from './heldAgainst';
import { parseSheet } from './parseSheet';
import { computeSheet } from './sheets';

const MARKS = shopMarks({});
const held = (sheet: string, fields: object, marks = MARKS) => {
  const parsed = parseSheet({ format: 'spiraxis-sheet', version: 1, sheet, ...fields });
  return heldAgainst(parsed, computeSheet(parsed, marks), marks).map(({ table, row }) => `${table}: ${row}`);
};

describe('what a sheet was held against', () => {
  it('insulation: the row of its class; a mark of the user’s own needs none', () => {
    const line = { conductors: ['1'], circuitVolts: 400 };
    expect(held('insulation', line)).toEqual(['insulation: Up to 500 V']);
    expect(held('insulation', { ...line, circuitVolts: 24 })).toEqual([
      'insulation: Extra-low voltage (SELV, PELV)',
    ]);
    expect(held('insulation', { ...line, passOhms: 2e6 })).toEqual([]);
    expect(held('insulation', { conductors: ['1'] })).toEqual([]);
  });
  it('contacts: the row of the school, once a drop was read', () => {
    const bank = (more: object) => ({ contactors: [{ name: 'K1', ...more }] });
    expect(held('contacts', bank({ clicks: true }))).toEqual([]);
    expect(held('contacts', bank({ dropVolts: 0.1 }))).toEqual([
      'contact-drops: One closed heavy contact, DC',
    ]);
    expect(held('contacts', { ...bank({ dropVolts: 0.1 }), school: 'volts' })).toEqual([
      'contact-drops: One closed pole of a line contactor, AC',
    ]);
  });
  it('a coil: its tolerance where the maker states none, and the range of its kind where it was tried', () => {
    const read = { ohms: [31.5], leadOhms: 0, temperatureC: 20 };
    expect(held('coil', { ...read, maker: { ohms: 31.5, tolerance: 0.05 } })).toEqual([]);
    expect(held('coil', { ...read, maker: { ohms: 31.5 } })).toEqual([
      'coil-tolerances: Maker, no tolerance stated',
    ]);
    expect(held('coil', { ...read, twins: [31.2] })).toEqual(['coil-tolerances: Identical neighbour']);
    expect(held('coil', { ...read, device: 'contactor', ratedVolts: 24, pullInVolts: 18, hz: 50 })).toEqual([
      'coil-ratings: Contactor, AC coil',
    ]);
    expect(held('coil', { ...read, device: 'contactor', ratedVolts: 24 })).toEqual([]);
  });
  it('a shop’s figure stands in its place, marked as its own; each row once', () => {
    const own = shopMarks({ 'contact-drops|One closed heavy contact, DC|good': 0.07 });
    const row = rowOf('contact-drops', 'One closed heavy contact, DC', own);
    expect(row.figures).toEqual([
      { label: 'Good up to', value: 0.07, unit: 'V', own: 'shop' },
      { label: 'Repair from', value: 0.2, unit: 'V', own: 'table' },
    ]);
    expect(uniqueRows([row, row])).toEqual([row]);
  });
});
