import { act, cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Entry } from '@/core/job/entries';
import { CircuitModel } from '@/core/circuit/model';
import { isolationPlan } from '@/core/safety/isolationPlan';
import { demoCircuit } from '@/testing/demoCircuits';
import { clutchInterlocks, twoWayPair, winchPack } from '@/core/templates/electrical';
import { MachineUnderTest } from '@/core/testing/machineUnderTest';
import { entryWriter } from '@/core/testing/entryWriter';
import type { Circuit, Reading, Test } from '@/core/circuit/schema';
import { jobSheet } from '@/core/sheets/onCircuit/build';
import { shopMarks } from '@/core/tables/marks';
import { readTrace } from '@/workers/traceClient';
import { useDesk } from '../desk/desk';
import { openDesk } from '../desk/testing/openDesk';
import { SheetScreen } from './SheetScreen';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
jest.mock('../desk/JobStrip', () => ({ JobStrip: () => null }));
jest.mock('@/workers/traceClient', () => ({ readTrace: jest.fn() }));
const asked = useDesk as unknown as jest.Mock;
let sheet = 'contacts';
jest.mock('next/navigation', () => ({ useSearchParams: () => new URLSearchParams({ sheet }) }));

function show(name: string, circuit: Circuit, entries: readonly Entry[] = []) {
  sheet = name;
  const desk = openDesk(circuit, entries);
  asked.mockImplementation(desk.useDesk);
  render(<SheetScreen />);
  return { desk, person: userEvent.setup() };
}
const found = () => screen.getByTestId('found').textContent;
const rows = () => screen.getAllByTestId('sheet-row').map((row) => row.getAttribute('data-verdict'));

/** A log that has closed, locked and proved every point of the plan, and is signed. */
function madeSafe(circuit: Circuit): Entry[] {
  const entry = entryWriter();
  const plan = isolationPlan(new CircuitModel(circuit));
  return [
    ...plan.map(({ point, energy }) =>
      entry('isolation', { point, energy, how: '', lock: point, tag: '', released: '', tried: 'stays' }),
    ),
    entry('madeSafe', { points: plan.map(({ point }) => point) }),
  ];
}

describe('a timed test in a job', () => {
  it('takes each reading with its second, and holds the conductor until it is measured dead', async () => {
    const circuit = demoCircuit('pump-fill-valve');
    const { cells } = jobSheet(new CircuitModel(circuit), 'insulation', [], shopMarks({}))!.rows[0]!;
    const { from, to } = cells[0]!.test as Extract<Test, { kind: 'insulation' }>;
    const startedMs = Date.now() - 31_000;
    localStorage.setItem(
      'spiraxis-job-1-run',
      JSON.stringify({ from, to, length: 60, startedMs, taken: [], endedMs: null }),
    );
    const { desk, person } = show('insulation', circuit, madeSafe(circuit));
    const hold = document.querySelector<HTMLInputElement>('[data-hold]');
    if (hold) await person.click(hold);
    await person.type(await screen.findByRole('textbox', { name: /^Ohms at/ }), '450M{Enter}');
    expect(desk.readings()).toMatchObject([{ kind: 'insulation', from, to, value: 4.5e8, seconds: 30 }]);
    await person.click(screen.getByRole('button', { name: 'Test volts are off: stop' }));
    expect(screen.getByTestId('timed').textContent).toMatch(/is charged. Keep it shorted/);
    localStorage.clear();
  });
});

describe('a timed test of a pair that the sheet no longer has', () => {
  it('is not written to another: it is said, and what was typed stays', async () => {
    const circuit = demoCircuit('pump-fill-valve');
    localStorage.setItem(
      'spiraxis-job-1-run',
      JSON.stringify({
        from: 'gone',
        to: 'PE',
        length: 60,
        startedMs: Date.now() - 31_000,
        taken: [],
        endedMs: null,
      }),
    );
    const { desk, person } = show('insulation', circuit, madeSafe(circuit));
    const hold = document.querySelector<HTMLInputElement>('[data-hold]');
    if (hold) await person.click(hold);
    const field = await screen.findByRole<HTMLInputElement>('textbox', { name: /^Ohms at/ });
    await person.type(field, '450M{Enter}');
    expect(screen.getByText(/gone to PE is no pair of this sheet any more/)).toBeTruthy();
    expect(field.value).toBe('450M');
    expect(desk.readings()).toEqual([]);
    localStorage.clear();
  });
});

describe('a wire that is recorded through its whole sequence', () => {
  const circuit = demoCircuit('tractor-blower-stop');
  const bring = (seconds: number[], values: number[], quantity = 'volts') =>
    (readTrace as jest.Mock).mockReturnValue({
      answer: Promise.resolve({ ok: true, value: { seconds, channels: [{ name: 'A', quantity, values }] } }),
      cancel: jest.fn(),
    });
  const points = Array.from({ length: 800 }, (_one, k) => k * 0.02);

  it('asks at once for all that holds any moment of it, fills its row and says what came first', async () => {
    const { desk, person } = show('timeline', circuit);
    const hold = () => document.querySelector<HTMLInputElement>('[data-hold]');
    // At rest nothing moves; who runs through all of it may move it.
    if (hold()) await person.click(hold()!);
    await person.click(screen.getByText(/Or record this wire/));
    expect(await screen.findByText('Tick “Clear” first.')).toBeTruthy();
    await person.click(hold()!);
    const file = await screen.findByLabelText('Bring its volts (CSV)');
    // Dead all the way: the first moment at which it should not be is the first difference.
    bring(
      points,
      points.map(() => 0.01),
    );
    await person.upload(file, new File(['x'], 'wire.csv'));
    const pasted = await screen.findByTestId('pasted-column');
    expect(pasted.textContent).not.toMatch(/left out/);
    await person.click(within(pasted).getByRole('button', { name: /^Pin these \d readings/ }));
    expect(desk.readings().length).toBeGreaterThan(3);
    expect(found()).toMatch(/^First difference, seat taken: .*carries 0.01 V where 12\.\d V should stand/);
  });

  it('is refused where it is no volts, or too short; a pace that is none is said', async () => {
    const { desk, person } = show('timeline', circuit);
    await person.click(screen.getByText(/Or record this wire/));
    const hold = document.querySelector<HTMLInputElement>('[data-hold]');
    if (hold && !hold.checked) await person.click(hold);
    const file = await screen.findByLabelText('Bring its volts (CSV)');
    bring(points, points, 'amps');
    await person.upload(file, new File(['x'], 'clamp.csv'));
    expect(await screen.findByText(/clamp\.csv: holds amps/)).toBeTruthy();
    bring(points.slice(0, 100), points.slice(0, 100));
    await person.upload(file, new File(['x'], 'short.csv'));
    expect(await screen.findByText(/short\.csv: lasts .* record until it is at rest again/)).toBeTruthy();
    const pace = screen.getByLabelText(/Something is turned every/);
    await person.clear(pace);
    expect(screen.getByText('Between 1 and 60 seconds.')).toBeTruthy();
    expect(desk.readings()).toEqual([]);
  });
});

describe('two people on one sheet', () => {
  it('who has begun with a cell stays at it, and hears what the other read there', async () => {
    const circuit = twoWayPair();
    const { desk, person } = show('coil', circuit, madeSafe(circuit));
    const hold = document.querySelector<HTMLInputElement>('[data-hold]');
    if (hold) await person.click(hold);
    const first = screen.getByRole<HTMLInputElement>('textbox', { name: /Ohms, Y1/ });
    await person.type(first, '9.');
    const { test } = jobSheet(desk.speaker.model, 'coil', [], shopMarks({}))!.rows[0]!.cells[0]!;
    const ilse = entryWriter('Ilse');
    const hers = { reading: { ...test, value: 9.3 } as Reading, typed: '9.3' };
    act(() => desk.arrive(ilse('reading', hers, { id: '01900002-0000-7000-8000-000000000001' })));
    expect(screen.getByTestId('meanwhile').textContent).toContain('Ilse read this meanwhile: 9.3 Ω.');
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: /Ohms, Y1/ }).value).toBe('9.');
    await person.click(screen.getByRole('button', { name: 'Leave it at that' }));
    expect(screen.queryByTestId('meanwhile')).toBeNull();
    expect(desk.readings()).toHaveLength(1);
    expect(screen.getByRole('textbox', { name: /Ohms, Y2/ })).toBeTruthy();
    // What was read is taken back where it stands.
    await person.click(screen.getByRole('button', { name: /^Y1, Ohms/ }));
    await person.click(screen.getByRole('button', { name: 'Take it back' }));
    expect(desk.readings()).toEqual([]);
  });
});

describe('a column that another’s reading brings', () => {
  it('leaves what is typed at its own cell', async () => {
    const circuit = winchPack();
    const { desk, person } = show('contacts', circuit, madeSafe(circuit));
    const { rows: lines, columns } = jobSheet(desk.speaker.model, 'contacts', [], shopMarks({}))!;
    const chosen = () =>
      within(screen.getByRole('table')).getByRole('button', { pressed: true }).getAttribute('aria-label');
    await person.click(
      within(screen.getByRole('table')).getByRole('button', { name: /^K3, .*Contact open/ }),
    );
    const cell = chosen();
    const ilse = entryWriter('Ilse');
    lines.forEach(({ cells }, at) => {
      const { test } = cells[columns.indexOf('click')]!;
      const hers = { reading: { ...test, value: false } as Reading, typed: 'no click' };
      act(() => desk.arrive(ilse('reading', hers, { id: `01900002-0000-7000-8000-00000000001${at}` })));
    });
    expect(screen.getByRole('button', { name: 'At the coil, commanded' })).toBeTruthy();
    expect(chosen()).toBe(cell);
  });
});

describe('outputs link by link', () => {
  it('an override on the controller’s page goes into the ledger with one press, and once', async () => {
    const { desk, person } = show('proofChain', demoCircuit('press-clamp'));
    await person.click(screen.getByRole('button', { name: /^A1 is overridden on its page/ }));
    expect(desk.last()).toMatchObject({
      type: 'ledger',
      body: { kind: 'override', item: 'A1 overridden on the controller’s page' },
    });
    expect(screen.queryByRole('button', { name: /is overridden on its page/ })).toBeNull();
  });
});

describe('conductors by each other', () => {
  it('are read by pressing their pair; above the diagonal stands what was proved last', async () => {
    const circuit = demoCircuit('groomer-blade-tilt');
    const { desk, person } = show('conductors', circuit, madeSafe(circuit));
    const pair = (name: RegExp) => screen.getByRole('button', { name });
    await person.click(pair(/^W15 to W14: not read$/));
    expect(screen.getByRole('heading', { name: /^W15 and W14/ })).toBeTruthy();
    const hold = document.querySelector<HTMLInputElement>('[data-hold]');
    if (hold) await person.click(hold);
    await person.type(screen.getByRole('textbox', { name: /W14, W15$/ }), '200k{Enter}');
    expect(desk.readings()).toHaveLength(1);
    expect(pair(/^W15 to W14: 200 kΩ, leaks$/)).toBeTruthy();
    expect(found()).toBe('Between W15 and W14 it leaks.');
    expect(screen.getByRole('cell', { name: 'W14 to W15, last proved: not known' })).toBeTruthy();
  });
});

describe('a column from a spreadsheet', () => {
  it('stands there to be looked at, is pinned as one and undone as one, and the hands stay on the keys', async () => {
    const { desk, person } = show('drop', demoCircuit('groomer-blade-float'));
    await person.click(document.querySelector<HTMLInputElement>('[data-hold]')!);
    // Once it is said to be clear the answer waits for the keys.
    expect(document.activeElement).toBe(screen.getByRole('textbox'));
    await person.paste('0,01\n0.02 V\n9 kohm');
    expect(screen.getByText(/^Line 3: “9 kohm” is no /)).toBeTruthy();
    await person.paste('F7\t0.01\nS1\t0.02');
    expect(screen.getByText(/^Line 1 of what was pasted has 2 columns/)).toBeTruthy();
    expect(desk.readings()).toEqual([]);
    await person.paste('0,01\n0.02 V');
    expect(screen.getByTestId('pasted-column').textContent).toMatch(/0\.01 V.*0\.02 V/);
    await person.click(screen.getByRole('button', { name: 'Pin these 2 readings' }));
    expect(desk.readings().map(({ value }) => value)).toEqual([0.01, 0.02]);
    expect(screen.getByText('Pinned 2 readings.')).toBeTruthy();
    // The next cell waits for its own tick.
    expect(document.activeElement).toBe(document.querySelector('[data-hold]'));
    await person.keyboard('{Control>}z{/Control}');
    expect(desk.readings()).toEqual([]);
    expect(screen.queryByRole('button', { name: 'Undo' })).toBeNull();
  });
});

describe('coils', () => {
  it('take their temperature once for all of them, and stand among their kind', async () => {
    const circuit = twoWayPair();
    const { desk, person } = show('coil', circuit, madeSafe(circuit));
    const type = async (label: RegExp, text: string) => {
      const field = screen.getByRole('textbox', { name: label });
      await person.clear(field);
      await person.type(field, text);
    };
    const clear = async () => {
      const hold = document.querySelector<HTMLInputElement>('[data-hold]');
      if (hold && !hold.checked) await person.click(hold);
    };
    await clear();
    await type(/Winding at/, 'warm');
    expect(screen.getByText(/“warm” is no temperature that a winding has/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Pin' })).toBeNull();
    await type(/Winding at/, '80');
    await type(/Ohms, Y1/, '9.15{Enter}');
    await clear();
    await type(/Ohms, Y2/, '9.1{Enter}');
    expect(desk.readings().map((one) => (one.kind === 'ohms' ? one.celsius : null))).toEqual([80, 80]);
    expect(rows()).toEqual(['good', 'good']);
    // A head sorts by its column: Y2 reads less.
    const order = () =>
      screen
        .getAllByTestId('sheet-row')
        .map((row) => within(row).getByRole('rowheader').textContent!.slice(0, 2));
    expect(order()).toEqual(['Y1', 'Y2']);
    await person.click(screen.getByRole('button', { name: 'Ohms' }));
    expect(order()).toEqual(['Y2', 'Y1']);
    expect(screen.getByRole('columnheader', { name: 'Ohms' }).getAttribute('aria-sort')).toBe('ascending');
    await person.click(screen.getByRole('button', { name: /^Y1, Ohms/ }));
    const among = screen.getByTestId('coil-among');
    expect(within(among).getByRole('img').getAttribute('aria-label')).toMatch(
      /This one 7\.4 Ω; identical neighbours 7\.3. Ω/,
    );
  });
});

describe('a sheet of the job', () => {
  it('asks for one cell after the other; what is typed is a reading of the job, and the bad one stands out', async () => {
    const { desk, person } = show('interlocks', clutchInterlocks());
    const machine = new MachineUnderTest(clutchInterlocks(), 'S2', 'stuckOpen');
    expect(found()).toBe('Nothing is read yet.');
    for (let round = 0; round < 5 && !rows().includes('bad'); round++) {
      const hold = document.querySelector<HTMLInputElement>('[data-hold]');
      if (hold) await person.click(hold);
      const last = desk.readings().length;
      const field = screen.getByRole('textbox');
      const test = nextTest();
      await person.type(field, `${machine.answer(test)}{Enter}`);
      expect(desk.readings()).toHaveLength(last + 1);
    }
    expect(rows()).toContain('bad');
    expect(found()).toMatch(/^S2 loses 1\d.*V: the first on the way/);
    // Nothing is left to read here: the way on, and where the doubt has moved.
    expect(screen.getByRole('link', { name: 'Go on with the next test' })).toBeTruthy();
    expect(document.querySelector('[data-suspect]')?.getAttribute('data-suspect')).toBe('S2');

    function nextTest(): Test {
      const chosen = within(screen.getByRole('table')).getByRole('button', { pressed: true });
      const after = chosen.getAttribute('aria-label')!.split(',')[0]!;
      const node = after === 'Supply' ? 'W1:2' : `${after}:2`;
      const { controls } = clutchInterlocks();
      return {
        kind: 'volts',
        from: node,
        to: 'GND',
        setup: {
          controls: Object.fromEntries(Object.entries(controls).map(([name, list]) => [name, list[1]!])),
        },
      };
    }
  });

  it('nothing is typed before the hold is ticked, and a dead cell stays shut until it is made safe', async () => {
    const { person } = show('contacts', winchPack());
    expect(screen.getByText('Tick “Clear” first.')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'clicks' })).toBeNull();
    await person.click(document.querySelector<HTMLInputElement>('[data-hold]')!);
    expect(screen.getByRole('button', { name: 'clicks' })).toBeTruthy();
    await person.click(screen.getAllByRole('button', { name: /Contact open: not read/ })[0]!);
    expect(screen.getByText(/Shut until the work is made safe/)).toBeTruthy();
    expect(screen.queryByRole('textbox')).toBeNull();
  });

  it('readings of the job stand in their cells', () => {
    const entry = entryWriter();
    const reading = { kind: 'click', part: 'K1', setup: { controls: { pendant: 'out' } }, value: true };
    show('contacts', winchPack(), [entry('reading', { reading, typed: 'clicks' })]);
    expect(screen.getAllByRole('button', { name: /^K1.*Click: clicks$/ })).toHaveLength(1);
  });

  it('a circuit with nothing for a sheet says so', () => {
    show('outputs', winchPack());
    expect(screen.getByText('This circuit has nothing for this sheet.')).toBeTruthy();
    expect(screen.queryByRole('link', { name: 'Output matrix' })).toBeNull();
  });

  it('what comes off before the tester is ticked once it is made safe, and stands in the ledger until it is back', async () => {
    const circuit = demoCircuit('pump-fill-valve');
    const { person } = show('insulation', circuit);
    const box = (item: RegExp) => screen.getByRole<HTMLInputElement>('checkbox', { name: item });
    // Nothing comes off before the work is locked and proved.
    expect(box(/^Plug X2 off/).disabled).toBe(true);
    cleanup();
    const { desk } = show('insulation', circuit, madeSafe(circuit));
    await person.click(box(/^Plug X2 off/));
    expect(desk.last()).toMatchObject({ type: 'ledger', body: { puts: { unplugged: ['X2'] } } });
    expect(box(/^Plug X2 off/)).toMatchObject({ checked: true, disabled: true });
    expect(screen.getByText('in the ledger until it is back')).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'It is back on' }));
    expect(box(/^Plug X2 off/).checked).toBe(false);
  });
});
