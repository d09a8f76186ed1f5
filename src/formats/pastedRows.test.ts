import { pastedRows } from './table';

describe('what is pasted from a spreadsheet', () => {
  it('is a column by its line breaks, whatever the decimal sign, and columns by tabs or semicolons', () => {
    expect(pastedRows('0,01\r\n0,02\r\n')).toEqual([['0,01'], ['0,02']]);
    expect(pastedRows('1\t2\n\t4')).toEqual([
      ['1', '2'],
      ['', '4'],
    ]);
    expect(pastedRows('K1; 4,7\nK2; OL')).toEqual([
      ['K1', '4,7'],
      ['K2', 'OL'],
    ]);
    expect(pastedRows('1\n\n3')).toEqual([['1'], [''], ['3']]);
  });

  it('a single figure is typed, not pasted', () => {
    expect(pastedRows('27.4')).toBeNull();
    expect(pastedRows('27.4\n')).toBeNull();
    expect(pastedRows('')).toBeNull();
  });
});
