import { isOpenTo, licenceOfSheet } from './licensed';

describe('who may work on a refrigerant circuit', () => {
  it('only who holds the licence; a sheet about anything else is open', () => {
    expect(licenceOfSheet('evacuation')).toBe('refrigerant');
    expect(licenceOfSheet('coil')).toBeNull();
    expect(isOpenTo('saturation', { licences: ['lineVolts'] })).toBe(false);
    expect(isOpenTo('saturation', { licences: ['lineVolts', 'refrigerant'] })).toBe(true);
    expect(isOpenTo('coil', { licences: [] })).toBe(true);
  });
});
