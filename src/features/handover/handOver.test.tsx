import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Test } from '@/core/circuit/schema';
import type { Entry } from '@/core/job/entries';
import { proofList } from '@/core/job/proofList';
import { reduceJob } from '@/core/job/reduceJob';
import { singleCoil, winchPack } from '@/core/templates/electrical';
import { entryWriter } from '@/core/testing/entryWriter';
import { MachineUnderTest } from '@/core/testing/machineUnderTest';
import { useDesk, type JobFacts } from '../desk/desk';
import { openDesk } from '../desk/testing/openDesk';
import { USUAL_POLICY } from '../policy/policy';
import { HandOverScreen } from './HandOverScreen';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
const asked = useDesk as unknown as jest.Mock;
const circuit = singleCoil();
const sound = new MachineUnderTest(circuit);

/** Everything that has to be shown on a sound machine, shown. */
function shown(entry: ReturnType<typeof entryWriter>, before: readonly Entry[]): Entry[] {
  return proofList(sound.model, reduceJob(before)).flatMap((proof) => {
    if (!('test' in proof)) return [];
    const value = sound.value(proof.test);
    return [
      entry('reading', {
        reading: { ...proof.test, value },
        typed: sound.answer(proof.test),
        phase: 'fixed',
        check: proof.id,
      }),
      entry('proof', { proof: proof.id, done: true, found: sound.answer(proof.test) }),
    ];
  });
}
function show(entries: readonly Entry[], more: Partial<JobFacts> = {}) {
  const desk = openDesk(circuit, entries, more);
  asked.mockImplementation(desk.useDesk);
  render(<HandOverScreen />);
  return { desk, person: userEvent.setup() };
}
const key = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Hand over as Tove' });
const stops = () => screen.getByTestId('stops').textContent;
const nothing = { part: '', fault: '', action: 'nothing', why: '', cleared: [], minutes: null, cost: null };

describe('handing over', () => {
  it('stays shut with every reason said', () => {
    show([]);
    expect(key().disabled).toBe(true);
    expect(stops()).toMatch(/Nothing is decided yet/);
    expect(stops()).toMatch(/Not shown/);
  });

  it('stays shut where a dead test was taken and nobody signed that it was dead', () => {
    const entry = entryWriter();
    const test: Test = { kind: 'ohms', from: 'X1.1:2', to: 'Y1:2', setup: { isolated: ['G1'] } };
    show([entry('reading', { reading: { ...test, value: 9 }, typed: '9' }), entry('decision', nothing)]);
    expect(stops()).toMatch(/nobody signed that it was made safe/);
  });

  it('stays shut while the lead’s word is to go back', () => {
    const entry = entryWriter();
    const decision = entry('decision', nothing);
    const back = entry('opinion', { decision: decision.id, says: 'sendBack', note: 'measure the return' });
    show([decision, back]);
    expect(stops()).toMatch(/sent the decision back/);
  });

  it.each([
    // Noon in UTC is the next day there; three o'clock is the day before.
    ['Pacific/Auckland', '2026-12-01T12:00:00Z', '2026-12-05'],
    ['America/Los_Angeles', '2026-12-02T03:00:00Z', '2026-12-04'],
  ])('counts days to the next look from the site’s own day: %s', (timeZone, now, wanted) => {
    jest.useFakeTimers({ now: Date.parse(now) });
    try {
      const entry = entryWriter();
      const decision = entry('decision', nothing);
      const policy = { ...USUAL_POLICY, timeZone, retestDays: 3 };
      show([decision, ...shown(entry, [decision])], { policy });
      expect(screen.getByLabelText<HTMLInputElement>('Re-test on').value).toBe(wanted);
    } finally {
      jest.useRealTimers();
    }
  });

  it('opens when everything is shown, and writes what is left and no date that nobody chose', async () => {
    const entry = entryWriter();
    const decision = entry('decision', nothing);
    const { desk, person } = show([decision, ...shown(entry, [decision])]);
    expect(screen.queryByTestId('stops')).toBeNull();
    await person.type(screen.getByLabelText('A word to the driver'), 'Try it at noon');
    await person.type(screen.getByLabelText('Faults left, one a line'), 'Lamp H2 dim\n\n Boot torn ');
    await person.click(key());
    expect(desk.last()).toMatchObject({
      type: 'handOver',
      body: { note: 'Try it at noon', left: ['Lamp H2 dim', 'Boot torn'], retest: null },
    });
    // What needs the newest state says which it was written against.
    expect(desk.last().against).toBeDefined();
    expect(screen.getByTestId('handed-over').textContent).toMatch(/Handed over by Tove/);
  });

  it('a day to test again is proposed and can be chosen', async () => {
    const { person } = show([]);
    const field = screen.getByLabelText<HTMLInputElement>('Re-test on');
    expect(field.value).toBe('');
    await person.click(screen.getByRole('button', { name: 'In 90 days' }));
    expect(field.value).toMatch(/^\d{4}-\d\d-\d\d$/);
  });

  it('the site’s policy proposes the day, and says so until somebody changes it', async () => {
    const { person } = show([], { policy: { ...USUAL_POLICY, retestDays: 30 } });
    const field = screen.getByLabelText<HTMLInputElement>('Re-test on');
    expect(field.value).toMatch(/^\d{4}-\d\d-\d\d$/);
    expect(screen.getByText(/^By the site’s policy: 30 days/)).toBeTruthy();
    await person.clear(field);
    expect(screen.queryByText(/^By the site’s policy/)).toBeNull();
  });

  it('says what goes out past its limit as it was just read, and what drifted and was not looked at', async () => {
    const pack = winchPack();
    const setup = { controls: { pendant: 'out' } };
    const entry = entryWriter();
    const reading = { kind: 'volts', from: 'P', to: 'M1', setup, value: 0.31 };
    const drifting = { place: 'p', part: 'K2', title: 'K2, volts lost', on: null, beyond: true };
    const desk = openDesk(
      pack,
      [entry('retest', { tests: [] }), entry('reading', { reading, typed: '0.31', phase: 'fixed' })],
      { drifting: [drifting] },
    );
    asked.mockImplementation(desk.useDesk);
    render(<HandOverScreen />);
    expect(screen.getByTestId('past-limits').textContent).toMatch(
      /K1, volts lost \d+ to \d+, pendant out: 0\.31 V, above 0\.2 V: the shop’s rule for lost volts\./,
    );
    expect(screen.getByTestId('drifting').textContent).toBe(
      'K2, volts lost was past its limit when it was read last.',
    );
  });

  it('codes that remain are said to go on the report', () => {
    const entry = entryWriter();
    show([
      entry('code', {
        component: 14,
        failureMode: 6,
        text: 'current too high',
        system: 'j1939',
        via: 'typed',
        present: true,
      }),
    ]);
    expect(screen.getByText(/Codes that remain go on the report/).textContent).toMatch(/14/);
  });

  it('the report is there only when everything written here is on the server', async () => {
    const { desk, person } = show([]);
    expect(screen.getByRole('link', { name: 'See and print' })).toBeTruthy();
    act(() => void desk.log.write({ type: 'complaint', body: { words: 'stops when hot', when: [] } }));
    expect(screen.queryByRole('link', { name: 'See and print' })).toBeNull();
    expect(screen.getByText(/One entry is on the way to the server/)).toBeTruthy();
    await person.type(screen.getByLabelText('A word to the driver'), 'x');
    expect(screen.queryByRole('link', { name: /PDF/ })).toBeNull();
  });
});
