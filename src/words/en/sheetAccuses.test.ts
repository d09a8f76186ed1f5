import { CircuitModel } from '@/core/circuit/model';
import type { Circuit, Reading } from '@/core/circuit/schema';
import { listFaults } from '@/core/diagnosis/faults';
import { jobSheet } from '@/core/sheets/onCircuit/build';
import type { JobSheet, JobSheetName } from '@/core/sheets/onCircuit/jobSheet';
import { MARKS } from '@/core/sheets/testing/followSheet';
import { TEMPLATES } from '@/core/templates/templates';
import { MachineUnderTest } from '@/core/testing/machineUnderTest';
import { demoCircuits } from '@/testing/demoCircuits';
import { verdictTone } from './sheets';

/** Sheets whose rows say of a part by its name that it is bad. */
const OF_PARTS: readonly JobSheetName[] = ['coil', 'contacts', 'terminals', 'diodes', 'interlocks', 'drop'];
/** Every so many-th fault of a circuit is brought in, other ones in each. */
const EVERY = 3;
/** Cells that are asked for after all that stood open, at most. */
const MOST_MORE = 40;

const CIRCUITS: [string, Circuit][] = [
  ...demoCircuits().map(({ name, circuit }): [string, Circuit] => [name, circuit]),
  ...TEMPLATES.map(({ id, build }): [string, Circuit] => [id, build()]),
];

/** A sheet with all its cells read on a machine, and with what it asks for then. */
function filled(model: CircuitModel, machine: MachineUnderTest, name: JobSheetName): JobSheet | null {
  const empty = jobSheet(model, name, [], MARKS);
  if (!empty) return null;
  const readings = empty.rows.flatMap(({ cells }) =>
    cells.flatMap((cell): Reading[] => {
      const value = cell && machine.value(cell.test);
      return value === null || value === undefined ? [] : [{ ...cell!.test, value } as Reading];
    }),
  );
  for (let asked = 0; ; asked++) {
    const sheet = jobSheet(model, name, readings, MARKS)!;
    if (!sheet.next || asked === MOST_MORE) return sheet;
    const { test } = sheet.rows[sheet.next[0]]!.cells[sheet.next[1]]!;
    readings.push({ ...test, value: machine.value(test) } as Reading);
  }
}

/** Parts and points that the rows of a sheet condemn, row by row. */
const condemned = (sheet: JobSheet): string[][] =>
  sheet.rows
    .filter(({ verdict }) => verdictTone(verdict) === 'bad')
    .map(({ name, ahead = [] }) => [...name.split(' '), ...ahead]);

/** Pins of one plug that are exchanged are a fault of the plug. */
const plugOf = (ref: string) => ref.split('.')[0]!;
const isAbout = (name: string, ref: string) => plugOf(name) === plugOf(ref);

/** What opens for the fault of another is open all the same. */
const PROTECTS: readonly string[] = ['fuse', 'breaker'];

describe.each(CIRCUITS)('sheets on %s', (name, circuit) => {
  const model = new CircuitModel(circuit);
  const protects = circuit.parts.filter(({ kind }) => PROTECTS.includes(kind)).map(({ ref }) => ref);
  it('condemn nothing on a sound machine', () => {
    const machine = new MachineUnderTest(circuit);
    for (const sheet of OF_PARTS) expect(condemned(filled(model, machine, sheet) ?? NONE)).toEqual([]);
  });
  it('condemn no part for the fault of another', () => {
    const at = CIRCUITS.findIndex(([one]) => one === name) % EVERY;
    const wrong = listFaults(model)
      .filter((_one, k) => k % EVERY === at)
      .flatMap(({ ref, fault, other }) => {
        const machine = new MachineUnderTest(circuit, other === undefined ? ref : `${ref}+${other}`, fault);
        return OF_PARTS.flatMap((sheet) =>
          condemned(filled(model, machine, sheet) ?? NONE)
            .filter((row) => !row.some((one) => isAbout(one, ref) || one === other || protects.includes(one)))
            .map((row) => `${ref} ${fault}: ${sheet} of ${row.join(', ')}`),
        );
      });
    expect(wrong).toEqual([]);
  });
});

const NONE = { rows: [] } as unknown as JobSheet;
