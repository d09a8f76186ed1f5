import { shopMarks } from '@/core/tables/marks';
import { CircuitModel } from '@/core/circuit/model';
import type { Reading } from '@/core/circuit/schema';
import { jobSheet } from '@/core/sheets/onCircuit/build';
import { twoWayPair } from '@/core/templates/electrical';
import { writeSheetTable } from './sheetTable';

describe('a sheet as a table', () => {
  it('has a line a row, what was read in SI, and nothing where nothing was', () => {
    const model = new CircuitModel(twoWayPair());
    const { test } = jobSheet(model, 'coil', [], shopMarks({}))!.rows[0]!.cells[0]!;
    const sheet = jobSheet(model, 'coil', [{ ...test, value: 'OL' } as Reading], shopMarks({}))!;
    const lines = writeSheetTable(sheet, ({ name }) => name).split('\r\n');
    expect(lines).toEqual(['what,ohms,amps,says', 'Y1,OL,,open', 'Y2,,,', '']);
  });
});
