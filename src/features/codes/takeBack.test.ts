import { bookRowSchema } from '@/core/codes/bookRow';
import { CircuitModel } from '@/core/circuit/model';
import { codedDrivers, codeReading } from '@/core/diagnosis/codeEvidence';
import type { Entry } from '@/core/job/entries';
import { reduceJob } from '@/core/job/reduceJob';
import { driverHighSide } from '@/core/templates/electrical';
import { entryWriter } from '@/core/testing/entryWriter';
import { takeBack } from './takeBack';

const model = new CircuitModel(driverHighSide());
const [driver] = codedDrivers(model);
const entry = entryWriter();
const code = (failureMode: number, present = true) =>
  entry('code', {
    system: 'pair',
    component: 14,
    failureMode,
    text: '',
    via: 'typed',
    part: driver!.part,
    present,
  });
const evidence = (modes: number[]) =>
  entry('reading', { reading: codeReading(driver!, modes), typed: modes.join() });

/** The job as it stands once the first code of its record was taken back. */
function after(entries: Entry[], book: Parameters<typeof takeBack>[4] = []) {
  const state = reduceJob(entries);
  const drafts = takeBack(state.codes[0]!, entries, state, [driver!], book);
  return {
    drafts,
    state: reduceJob([...entries, ...drafts.map(({ type, body, ...more }) => entry(type, body, more))]),
  };
}

describe('taking back a code that never was', () => {
  it('takes its evidence along; all of it stays in the record', () => {
    const entries = [code(6), evidence([6])];
    const { state } = after(entries);
    expect(state.codes).toEqual([]);
    expect(state.readings).toEqual([]);
    expect(state.history.map(({ superseded }) => superseded)).toEqual([true]);
  });

  it('leaves the other code of the same driver in evidence', () => {
    const { state } = after([code(6), code(5), evidence([5, 6])]);
    expect(state.codes.map(({ key }) => key)).toEqual(['14-5']);
    expect(state.readings.map(({ reading }) => reading.value)).toEqual([[5]]);
  });

  it('withdraws every entry of it: gone and back again', () => {
    const { drafts, state } = after([code(6), code(6, false), code(6)]);
    expect(drafts.map(({ type }) => type)).toEqual(['withdrawal', 'withdrawal', 'withdrawal']);
    expect(state.codes).toEqual([]);
  });

  it('goes by what the book says the code means', () => {
    const row = bookRowSchema.parse({ system: 'maker', code: '14', mode: '9', means: 6 });
    const { state } = after([code(9), evidence([6])], [row]);
    expect(state.readings).toEqual([]);
    // Without the book mode 9 was never evidence: the reading is somebody else's.
    expect(after([code(9), evidence([6])]).state.readings).toHaveLength(1);
  });
});
