import { seededRandom } from '../random';
import { parseSheet } from './parseSheet';
import { computeSheet, type SheetName } from './sheets';
import { PLANTED, playSheet } from './testing/planted';

describe('every sheet', () => {
  it.each(Object.entries(PLANTED))(
    '%s names what was planted, and hardly ever something else',
    (_name, plant) => {
      const random = seededRandom(11);
      const count = 60;
      const sums = { right: 0, wrong: 0, open: 0 };
      for (let k = 0; k < count; k++) {
        sums[playSheet(plant(random)).outcome]++;
      }
      expect(sums.wrong).toBe(0);
      expect(sums.right / count).toBeGreaterThan(0.95);
    },
  );

  const BARE: Readonly<Record<SheetName, object>> = {
    coil: {},
    windings: { wires: ['a', 'b', 'c'] },
    insulation: { conductors: ['1'] },
    contacts: { contactors: [{ name: 'K1' }] },
    terminals: { terminals: ['1', '2', '3'] },
    outputs: { outputs: ['1', '2'] },
    survey: { pins: ['1'] },
    diode: {},
    interlocks: { switches: [{ name: 'S1' }] },
    spareContact: {},
    drop: { segments: [{ name: 'feed' }] },
    bubbles: {},
    actuation: {},
    saturation: { refrigerant: 'R-22' },
    cutIn: {},
    functions: {
      functions: [
        { name: 'lift', parts: ['F1'] },
        { name: 'tilt', parts: ['F1', 'Y1'] },
      ],
    },
    trace: {},
    wire: {},
    needs: {},
    hold: {},
    evacuation: {},
    planner: {},
    stroke: {},
    connector: { pins: ['1', '2'] },
  };

  it.each(Object.entries(BARE))('%s with nothing read says nothing, and asks', (sheet, fields) => {
    const answer = computeSheet(parseSheet({ format: 'spiraxis-sheet', version: 1, sheet, ...fields }));
    expect(answer.next).not.toBeNull();
    expect(Array.isArray(answer.findings)).toBe(true);
    const said = JSON.stringify({ ...answer, findings: [], next: null });
    expect(said).not.toMatch(/:"(good|bad|low|high|open|shorted|leaking|healthy|dead\w*|ran|worn|welded)"/);
    // Nothing in an answer is lost or made up on its way through JSON.
    expect(JSON.parse(JSON.stringify(answer))).toEqual(answer);
  });

  it('a document that is none is refused with its field, its value and the mend', () => {
    const wrong = (data: unknown) => () => parseSheet(data);
    const head = { format: 'spiraxis-sheet', version: 1 };
    expect(wrong({ ...head, sheet: 'rope' })).toThrow(/sheet: "rope" is no sheet; use one of coil/);
    expect(wrong({ ...head })).toThrow(/sheet: nothing given; use one of/);
    expect(wrong({ ...head, version: 2, sheet: 'coil' })).toThrow(/version/);
    expect(wrong({ ...head, sheet: 'coil', ohms: ['open'] })).toThrow(/ohms\[0\]/);
    expect(wrong({ ...head, sheet: 'insulation' })).toThrow(/conductors/);
    expect(wrong({ ...head, sheet: 'insulation', conductors: ['1', '1'] })).toThrow(/twice/);
    expect(wrong([])).toThrow();
    expect(wrong(null)).toThrow();
  });
});
