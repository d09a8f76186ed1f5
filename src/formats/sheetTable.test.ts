import { shopMarks } from '@/core/tables/marks';
import { CircuitModel } from '@/core/circuit/model';
import type { Reading } from '@/core/circuit/schema';
import { jobSheet } from '@/core/sheets/onCircuit/build';
import { twoWayPair } from '@/core/templates/electrical';
import { writeDocumentTable, writeSheetTable } from './sheetTable';

describe('a sheet as a table', () => {
  it('has a line a row, what was read in SI, and nothing where nothing was', () => {
    const model = new CircuitModel(twoWayPair());
    const { test } = jobSheet(model, 'coil', [], shopMarks({}))!.rows[0]!.cells[0]!;
    const sheet = jobSheet(model, 'coil', [{ ...test, value: 'OL' } as Reading], shopMarks({}))!;
    const lines = writeSheetTable(sheet, ({ name }) => name).split('\r\n');
    expect(lines).toEqual(['what,ohms,amps,says', 'Y1,OL,,open', 'Y2,,,', '']);
  });
});

describe('a sheet by itself as a table', () => {
  it('has a line for each figure, and for what it makes of them; nothing for what was left empty', () => {
    const document = {
      sheet: 'windings',
      wires: ['A', 'B'],
      ohms: [
        { from: 'A', to: 'B', value: 14.7 },
        { from: 'A', to: '=B', value: 'OL' },
      ],
      leadOhms: undefined,
    };
    const text = writeDocumentTable(document, {
      verdict: 'good',
      common: null,
      findings: [{ code: 'alike' }],
    });
    expect(text.trim().split(/\r?\n/)).toEqual([
      'what,value',
      'sheet,windings',
      'wires 1,A',
      'wires 2,B',
      'ohms 1 from,A',
      'ohms 1 to,B',
      'ohms 1 value,14.7',
      'ohms 2 from,A',
      'ohms 2 to,"\'=B"',
      'ohms 2 value,OL',
      'says verdict,good',
      'says findings 1 code,alike',
    ]);
  });
});
