import { act, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useSyncExternalStore } from 'react';
import type { Reading, Test } from '@/core/circuit/schema';
import { isDeadKind } from '@/core/circuit/testPlace';
import { twoWayPair } from '@/core/templates/electrical';
import { entryWriter } from '@/core/testing/entryWriter';
import { MachineUnderTest } from '@/core/testing/machineUnderTest';
import { useDesk } from '../desk/desk';
import { openDesk } from '../desk/testing/openDesk';
import { testToParams } from './testAddress';
import { TestScreen } from './TestScreen';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
jest.mock('../drawings/actions', () => ({ pinnedSheets: jest.fn(() => Promise.resolve({ sheets: [] })) }));
jest.mock('../meter/actions', () => ({ turnMeter: jest.fn() }));
jest.mock('../desk/StepLink', () => ({
  StepLink: ({ children }: { children: string }) => <a>{children}</a>,
}));
/** The address as the router has it: followed when the screen changes it. */
jest.mock('next/navigation', () => ({ useSearchParams: () => useAddress() }));
const changes = new Set<() => void>();
function useAddress() {
  const search = useSyncExternalStore(
    (told) => {
      changes.add(told);
      return () => changes.delete(told);
    },
    () => window.location.search,
  );
  return new URLSearchParams(search);
}
const replace = window.history.replaceState.bind(window.history);
window.history.replaceState = (...args) => {
  replace(...args);
  for (const told of changes) told();
};
const asked = useDesk as unknown as jest.Mock;

function show(entries: Parameters<typeof openDesk>[1] = []) {
  window.history.replaceState(null, '', '/jobs/1?step=test');
  const desk = openDesk(twoWayPair(), entries);
  asked.mockImplementation(desk.useDesk);
  render(<TestScreen />);
  return { desk, person: userEvent.setup() };
}
const reported = (value: string) =>
  entryWriter()('reading', {
    reading: { kind: 'function', part: 'Y1', setup: { controls: { lever: 'forward' } }, value },
    typed: value,
  });
const tag = () => screen.getByTestId('next-test');
const test = () => JSON.parse(tag().getAttribute('data-test')!) as Test;

/** Asks for a test by its address, as a shared link does. */
function ask(desk: ReturnType<typeof openDesk>, wanted: Test) {
  const entries = Object.entries(testToParams(desk.speaker, wanted)).filter((one) => one[1] !== null);
  const params = new URLSearchParams([['step', 'test'], ...(entries as [string, string][])]);
  act(() => window.history.replaceState(null, '', `/jobs/1?${params}`));
}
const VOLTS: Test = { kind: 'volts', from: 'X1.1:2', to: 'GND', setup: { controls: { lever: 'forward' } } };

/** Passes over what is only looked at, until a meter is asked for. */
async function untilPairAsked(person: ReturnType<typeof userEvent.setup>) {
  const pairAsked = () => 'from' in test();
  while (!pairAsked()) await person.click(within(tag()).getByRole('button', { name: 'Can’t do this' }));
}

describe('the test screen', () => {
  it('a value of another quantity is refused with a sentence, and nothing is pinned', async () => {
    const { desk, person } = show([reported('dead')]);
    ask(desk, VOLTS);
    await waitFor(() => expect(test()).toEqual(VOLTS));
    if (document.querySelector('[data-hold]')) await person.keyboard('h');
    await person.keyboard('o{Enter}');
    expect(screen.getAllByText(/OL is ohms. This test wants volts/).length).toBeGreaterThan(0);
    expect(desk.readings()).toHaveLength(1);
    await person.keyboard('{Escape}0.02{Enter}{Enter}');
    await waitFor(() => expect(desk.readings()).toHaveLength(2));
    expect(desk.readings()[1]).toMatchObject({ ...VOLTS, value: 0.02 });
    // Pinned: the best test is asked for again.
    expect(window.location.search).toBe('?step=test');
  });

  it('what is typed while a button has the focus goes to the keyline, and so does the Enter after it', async () => {
    const { desk, person } = show([reported('dead')]);
    ask(desk, VOLTS);
    await waitFor(() => expect(test()).toEqual(VOLTS));
    for (const key of ['o', '1']) {
      const button = screen.getByRole('button', { name: 'Other tests' });
      act(() => button.focus());
      await person.keyboard(key);
      expect(document.activeElement).not.toBe(button);
      await person.keyboard('{Escape}');
    }
  });

  it('a test that makes no sense on this circuit says so, with the way back', async () => {
    const { desk, person } = show([reported('dead')]);
    ask(desk, { ...VOLTS, kind: 'ohms' });
    const trouble = await screen.findByTestId('own-trouble');
    expect(trouble.textContent).toMatch(/cannot be taken like this/);
    await person.click(within(trouble).getByRole('button', { name: 'Back to the best test' }));
    await screen.findByTestId('next-test');
  });

  it('keys pin what is asked, the next test comes, and the last reading can be taken back', async () => {
    const { desk, person } = show([reported('dead')]);
    const machine = new MachineUnderTest(twoWayPair(), 'Y1', 'open');
    const first = test();
    expect(isDeadKind(first.kind)).toBe(false);
    const typed = machine.answer(first);
    if (document.querySelector('[data-hold]')) await person.keyboard('h');
    if (/^[\d.]+$/.test(typed)) await person.keyboard(`${typed}{Enter}{Enter}`);
    else await person.click(document.querySelector(`[data-choice="${typed}"]`)!);
    await waitFor(() => expect(desk.readings()).toHaveLength(2));
    expect(screen.getByText(/^Pinned /)).toBeTruthy();
    await person.keyboard('{Control>}z{/Control}');
    await waitFor(() => expect(desk.readings()).toHaveLength(1));
  });

  it('a test that somebody has begun on stays under their hands, and what was typed for it goes to no other', async () => {
    const { desk, person } = show([reported('dead')]);
    await untilPairAsked(person);
    const begun = test();
    await person.keyboard('0.1');
    expect(screen.getByTestId('typed').textContent).toBe('0.1');
    // Ilse reads the same place meanwhile.
    const reading = { ...begun, value: 0.02 } as Reading;
    const id = '01900000-0000-7000-8000-0000000000aa';
    act(() => desk.arrive(entryWriter('Ilse')('reading', { reading, typed: '0.02' }, { id })));
    await waitFor(() => expect(desk.readings()).toHaveLength(2));
    expect(test()).toEqual(begun);
    expect(screen.getByTestId('typed').textContent).toBe('0.1');
    await person.keyboard('{Escape}');
    await waitFor(() => expect(test()).not.toEqual(begun));
    expect(screen.getByTestId('typed').textContent).toBe('');
  });

  it('a dead test stays shut until it is made safe', async () => {
    const { desk, person } = show([reported('dead')]);
    await person.click(screen.getByRole('button', { name: 'Other tests' }));
    const dead = screen
      .getAllByRole('menuitem')
      .find((item) => /ohms|resistance/i.test(item.textContent ?? ''));
    if (!dead) throw new Error('no dead test is offered');
    await person.click(dead);
    await waitFor(() => expect(screen.getByTestId('gate')).toBeTruthy());
    await person.keyboard('9{Enter}{Enter}');
    expect(desk.readings()).toHaveLength(1);
  });

  it('a place that cannot be reached is not asked for again', async () => {
    // Both ways are tried and dead: the meter's turn.
    const { desk, person } = show([reported('dead')]);
    await untilPairAsked(person);
    const before = test();
    await person.click(within(tag()).getByRole('button', { name: /^Can’t reach/ }));
    const [node] = desk.log.view().state.noReach;
    expect(Object.values(before)).toContain(node);
    await waitFor(() => expect(Object.values(test())).not.toContain(node));
  });

  it('what is wrong with the engine is said, and nothing pinned is lost', () => {
    const desk = openDesk(twoWayPair(), [reported('dead')]);
    const again = jest.fn();
    asked.mockImplementation(() => ({ ...desk.useDesk(), outlook: null, failure: 'Out of memory.', again }));
    render(<TestScreen />);
    expect(screen.getByRole('alert').textContent).toMatch(/Out of memory. Nothing you pinned is lost/);
    screen.getByRole('button', { name: 'Try again' }).click();
    expect(again).toHaveBeenCalled();
  });
});
