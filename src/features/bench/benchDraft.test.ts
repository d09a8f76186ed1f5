import { seededRandom } from '@/core/random';
import type { SheetName } from '@/core/sheets/sheets';
import { PLANTED } from '@/core/sheets/testing/planted';
import { sayAnswer } from '@/words/en/benchAnswers';
import { BENCH_TITLE, findingWords, nextWords } from '@/words/en/benchSheets';
import { BLANK, computeDraft, documentOf, draftOf, pasteInto, voltsIn, type Draft } from './benchDraft';

const draft = (fields: Record<string, string>, more: Partial<Draft> = {}): Draft => ({
  ...BLANK,
  fields,
  ...more,
});

describe('a sheet as it is typed', () => {
  it('takes figures as a meter shows them, and leaves out what was left empty', () => {
    expect(
      documentOf('coil', draft({ ohms: '31.9 4k7 OL', leadOhms: '0,2', 'maker.ohms': '31.5 Ω', hz: '' })),
    ).toEqual({
      format: 'spiraxis-sheet',
      version: 1,
      sheet: 'coil',
      ohms: [31.9, 4700, 'OL'],
      leadOhms: 0.2,
      maker: { ohms: 31.5 },
    });
    const table = draft(
      {},
      { tables: { contactors: [{ name: 'K1', clicks: 'yes', closedOhms: '0.2' }, { name: '' }] } },
    );
    expect(documentOf('contacts', table)).toMatchObject({
      contactors: [{ name: 'K1', clicks: true, closedOhms: 0.2 }],
    });
    const makes = { contactors: [{ name: 'K1', drops: [0.05, 0.31] }] };
    expect(
      documentOf(
        'contacts',
        draftOf('contacts', { format: 'spiraxis-sheet', version: 1, sheet: 'contacts', ...makes }),
      ),
    ).toMatchObject(makes);
  });
  it('a figure that is none, or one of another quantity, is said with its field and value', () => {
    expect(computeDraft('coil', draft({ leadOhms: 'about two' }))).toMatchObject({
      ok: false,
      trouble: expect.stringMatching(/^Leads held together: “about two” is no reading/) as string,
    });
    expect(computeDraft('diode', draft({ forward: '0.6 A' }))).toMatchObject({
      ok: false,
      trouble: expect.stringMatching(/Red on the anode: “0.6 A” is another quantity/) as string,
    });
    expect(computeDraft('cutIn', draft({ cutIn: 'six' }))).toMatchObject({ ok: false });
  });
  it('volts of a cell are read as everywhere, with their unit or without', () => {
    expect(['24', '24 V', '23,8', '-120mV', 'OL', '3 A', '', 'x'].map(voltsIn)).toEqual([
      24,
      24,
      23.8,
      0.12,
      null,
      null,
      null,
      null,
    ]);
  });
  it('a column of a spreadsheet goes down from the cell it is pasted in', () => {
    const rows = pasteInto([{ from: '1', ohms: '' }], ['from', 'to', 'ohms'], { row: 0, key: 'to' }, [
      ['PE', '5M'],
      ['2', 'OL'],
    ]);
    expect(rows).toEqual([
      { from: '1', to: 'PE', ohms: '5M' },
      { to: '2', ohms: 'OL' },
    ]);
  });
  it.each(Object.entries(PLANTED))(
    '%s: a file opens as it was kept, and its answer is said in words',
    (name, plant) => {
      const sheet = name as SheetName;
      const random = seededRandom(3);
      for (let k = 0; k < 12; k++) {
        const document = JSON.parse(JSON.stringify(plant(random).document)) as object;
        const opened = draftOf(sheet, document);
        const result = computeDraft(sheet, opened);
        if (!result.ok) throw new Error(result.trouble);
        expect(documentOf(sheet, opened)).toEqual(result.document);
        const { head, lines } = sayAnswer(sheet, result.answer);
        const said = [
          head,
          ...lines,
          ...result.answer.findings.map(findingWords),
          nextWords(result.answer.next, (field) => field) ?? '',
        ];
        for (const words of said) expect(words).not.toMatch(/undefined|NaN|null|\[object/);
      }
    },
  );
  it('what is set at a controller stands in what its sensor reads, with its unit', () => {
    const plan = (sensor: string) => {
      const fields = { sensor, acts: 'below', cutIn: '-13.94', cutOut: '-8.6', minimumOnSeconds: '120' };
      const result = computeDraft('planner', draft(fields));
      if (!result.ok) throw new Error(result.trouble);
      return sayAnswer('planner', result.answer).lines[0];
    };
    expect(plan('line')).toBe(
      'To be set: sensor in the line; comes on below; cut-in -13.9 °C; cut-out -8.6 °C; on at least 120 s',
    );
    expect(plan('pressure')).toContain('sensor of the pressure; comes on below; cut-in -13.9 kPa');
  });
  it('a file of another sheet is refused, and so is one that is no sheet', () => {
    const coil = { format: 'spiraxis-sheet', version: 1, sheet: 'coil' };
    expect(() => draftOf('diode', coil)).toThrow(/this file is a sheet "coil"; open it there/);
    expect(() => draftOf('diode', { sheet: 'map' })).toThrow(/"map" is no sheet/);
  });
  it('every sheet has a form that starts unknown', () => {
    for (const sheet of Object.keys(BENCH_TITLE) as SheetName[]) {
      const result = computeDraft(sheet, BLANK);
      if (result.ok) expect(['open', 'bad']).toContain(sayAnswer(sheet, result.answer).tone);
      else expect(result.trouble).toMatch(/nothing given/);
    }
  });
});
