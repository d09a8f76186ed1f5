import { CircuitModel } from '../../circuit/model';
import { demoCircuit } from '../../../testing/demoCircuits';
import { shopMarks } from '../../tables/marks';
import { jobSheet } from './build';
import type { JobSheetName } from './jobSheet';
import { placeColumn } from './pastedColumn';

function place(
  circuit: string,
  name: JobSheetName,
  at: [number, number],
  figures: (number | null)[],
  isOpen = (): boolean => true,
) {
  const model = new CircuitModel(demoCircuit(circuit));
  const sheet = jobSheet(model, name, [], shopMarks({}))!;
  return placeColumn(model, sheet, at, figures, isOpen).map((line) =>
    line.is === 'noCell' ? line.is : line.is === 'taken' ? [...line.at, line.figure] : [line.is, ...line.at],
  );
}

describe('a column that was copied from a spreadsheet', () => {
  it('goes downwards from its cell; a blank line leaves a cell out, what is too long has no cell', () => {
    expect(place('groomer-blade-float', 'drop', [0, 0], [1, null, 3])).toEqual([
      [0, 0, 1],
      [2, 0, 3],
    ]);
    const last = place('groomer-blade-float', 'drop', [8, 0], [1, 2]);
    expect(last).toEqual([[8, 0, 1], 'noCell']);
  });

  it('does not go where more holds it back than was said to be clear of the first, or where it is shut', () => {
    expect(place('groomer-comb-flaps', 'outputs', [0, 0], [1, 2])).toEqual([
      [0, 0, 1],
      [1, 0, 2],
    ]);
    expect(place('groomer-blade-float', 'drop', [0, 0], [1, 2], () => false)).toEqual([
      [0, 0, 1],
      ['otherHold', 1, 0],
    ]);
    // The relay's contact closes by a bench supply, which nobody said to be on.
    expect(place('loader-bucket-lock', 'terminals', [0, 1], [1, 2, 3])).toEqual([
      [0, 1, 1],
      [1, 1, 2],
      ['otherHold', 2, 1],
    ]);
  });

  it('of a matrix of conductors ends in its frame, as it is drawn', () => {
    expect(place('groomer-blade-tilt', 'conductors', [4, 0], [1, 2, 3, 4])).toEqual([
      [4, 0, 1],
      [5, 0, 2],
      [0, 6, 3],
      'noCell',
    ]);
    expect(place('groomer-blade-tilt', 'conductors', [2, 6], [1, 2])).toEqual([[2, 6, 1], 'noCell']);
  });
});
