import { act, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { driverHighSide } from '@/core/templates/electrical';
import { hoistLimits } from '@/core/templates/line';
import type { MeterMode } from '@/core/instrument/meterMode';
import type { MeterReport } from '@/core/instrument/meterReport';
import { entryWriter, fitted } from '@/core/testing/entryWriter';
import type { Answer } from '@/workers/protocol';
import { expectTrace, readTrace, weighTrace } from '@/workers/traceClient';
import { useDesk } from '../desk/desk';
import { openDesk } from '../desk/testing/openDesk';
import { followMeter } from '../meter/followMeter';
import { keepSource } from '../meter/liveSource';
import { soundTraces } from './actions';
import { TraceScreen } from './TraceScreen';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
jest.mock('../desk/StepLink', () => ({
  StepLink: ({ children }: { children: string }) => <a>{children}</a>,
}));
jest.mock('../desk/JobStrip', () => ({ JobStrip: () => null }));
jest.mock('next/navigation', () => ({ useSearchParams: () => new URLSearchParams('sheet=trace&part=Y1') }));
jest.mock('./actions', () => ({ soundTraces: jest.fn() }));
jest.mock('../meter/actions', () => ({ turnMeter: jest.fn() }));
jest.mock('../meter/followMeter', () => ({ followMeter: jest.fn() }));
jest.mock('@/workers/traceClient', () => ({
  readTrace: jest.fn(),
  weighTrace: jest.fn(),
  expectTrace: jest.fn(),
}));
jest.mock('./TraceChart', () => ({
  TraceChart: ({ lines, marks }: { lines: { name: string }[]; marks: { words: string }[] }) => (
    <p data-testid="chart">
      {[...lines.map(({ name }) => name), ...marks.map(({ words }) => words)].join('|')}
    </p>
  ),
}));

const seconds = Array.from({ length: 2000 }, (_one, k) => k / 5000);
const values = seconds.map((t) => (t < 0.05 ? 0 : 1.04 * (1 - Math.exp(-(t - 0.05) / 0.01))));
const run = <T,>(value: Answer<T>) => ({ answer: Promise.resolve(value), cancel: jest.fn() });
const judgement = (named: string | null, compared = false) =>
  run({
    ok: true,
    value: {
      named,
      before: compared ? {} : null,
      standings: [
        { condition: 'jammedOut', share: 0.9, trace: { seconds, values } },
        { condition: 'jammedIn', share: 0.1, trace: null },
      ],
    },
  });

function show(circuit = driverHighSide(), entries: Parameters<typeof openDesk>[1] = []) {
  const desk = openDesk(circuit, entries);
  (useDesk as unknown as jest.Mock).mockImplementation(desk.useDesk);
  render(<TraceScreen />);
  return { desk, person: userEvent.setup({ applyAccept: false }) };
}
const bring = (person: ReturnType<typeof userEvent.setup>, label: RegExp) =>
  person.upload(screen.getByLabelText(label), new File(['x'], 'clamp.csv'));

beforeEach(() => {
  (weighTrace as jest.Mock).mockClear();
  (expectTrace as jest.Mock).mockReturnValue(run({ ok: true, value: { seconds, values } }));
  (soundTraces as unknown as jest.Mock).mockResolvedValue({ traces: [] });
  (readTrace as jest.Mock).mockReturnValue(
    run({ ok: true, value: { seconds, channels: [{ name: 'A', quantity: 'amps', values }] } }),
  );
  (weighTrace as jest.Mock).mockReturnValue(judgement('jammedOut'));
});

describe('the trace sheet of a job', () => {
  it('says how it is taken and what must be clear, then what the trace shows; kept, it counts as readings', async () => {
    const { desk, person } = show();
    expect(screen.getByText(/Switched on: command on/)).toBeTruthy();
    expect(screen.getByTestId('sheet-hold').textContent).toMatch(/may move/);
    await bring(person, /Bring a trace/);
    await waitFor(() =>
      expect(screen.getByTestId('trace-found').textContent).toMatch(/does not move: it stays out/),
    );
    expect(screen.getByTestId('chart').textContent).toBe('this one|expected: stays out|on');
    // Without a sound trace out and in are one.
    expect(screen.getByTestId('trace-standings').textContent).toMatch(/does not move, out or in20 in 20/);
    await person.click(screen.getByRole('button', { name: 'Keep it in the job' }));
    await waitFor(() => expect(desk.readings()).toHaveLength(2));
    expect(desk.readings()).toMatchObject([
      { kind: 'amps', through: 'Y1', setup: { controls: { command: 'on' } } },
      { kind: 'trace', part: 'Y1', value: 'jammedOut' },
    ]);
    expect(screen.getByText(/Kept by Tove, from clamp.csv/)).toBeTruthy();
  });
  it('a file that is none is named with what is wrong, and what was there stays', async () => {
    const { person } = show();
    (readTrace as jest.Mock).mockReturnValueOnce(
      run({ ok: false, message: 'Trace: no rows of figures.', input: false }),
    );
    await bring(person, /Bring a trace/);
    expect(await screen.findByText('clamp.csv: Trace: no rows of figures.')).toBeTruthy();
    expect(screen.queryByTestId('trace-found')).toBeNull();
  });
  it('holds it against one from when it was sound, brought or of an earlier job', async () => {
    const amps = {
      beginSeconds: 0,
      stepSeconds: 2e-4,
      values: values.map((one) => Number(one.toPrecision(4))),
    };
    (soundTraces as unknown as jest.Mock).mockResolvedValue({
      traces: [{ part: 'Y1', amps, jobNumber: 12, at: '' }],
    });
    const { person } = show();
    (weighTrace as jest.Mock).mockReturnValue(judgement('jammedOut', true));
    await bring(person, /Bring a trace/);
    await waitFor(() =>
      expect(screen.getByLabelText('Held against').textContent).toContain('Y1, sound, job 12'),
    );
    await waitFor(() =>
      expect((weighTrace as jest.Mock).mock.lastCall![0]).toMatchObject({ part: 'Y1', sound: amps }),
    );
    expect(screen.getByTestId('trace-standings').textContent).toMatch(/stays out18 in 20.*stays in2 in 20/);
    // One without a curve of its own cannot be laid behind.
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /stays in/ }).disabled).toBe(true);
    await person.selectOptions(screen.getByLabelText('Held against'), 'nothing');
    await waitFor(() => expect((weighTrace as jest.Mock).mock.lastCall![0]).toMatchObject({ sound: null }));
  });
  it('points are typed too, and refused with a sentence', async () => {
    const { person } = show();
    await person.click(screen.getByRole('button', { name: 'Type points' }));
    await person.type(screen.getByLabelText(/Seconds and amps/), 'soon, a lot');
    await person.click(screen.getByRole('button', { name: 'Draw it' }));
    expect(screen.getByText(/no rows of figures were found/)).toBeTruthy();
  });
  it('after a fix it is what the sound machine shows, and no reading of the fault', async () => {
    const { desk, person } = show(driverHighSide(), [entryWriter()('fix', fitted('Y1'))]);
    await bring(person, /Bring a trace/);
    await waitFor(() => expect(screen.getByTestId('trace-found')).toBeTruthy());
    await person.click(await screen.findByRole('button', { name: 'Keep it in the job' }));
    await waitFor(() => expect(screen.getByText(/Kept by Tove/)).toBeTruthy());
    expect(desk.readings()).toEqual([]);
  });
  it('after a fix that did not mend it, it is of the fault again', async () => {
    const write = entryWriter();
    const failed = write('proof', { proof: 'works Y1', done: false, found: 'dead' });
    const { desk, person } = show(driverHighSide(), [write('fix', fitted('Y1')), failed]);
    await bring(person, /Bring a trace/);
    await waitFor(() => expect(screen.getByTestId('trace-found')).toBeTruthy());
    expect(
      screen.getByText('What it settles at and what its shape is named count as readings.'),
    ).toBeTruthy();
    await person.click(await screen.findByRole('button', { name: 'Keep it in the job' }));
    await waitFor(() => expect(screen.getByText(/Kept by Tove/)).toBeTruthy());
    expect(desk.readings()).not.toEqual([]);
  });
  it('records from the chosen meter, each value once, and draws what came', async () => {
    keepSource({ from: 'shop' });
    const told: ((report: MeterReport) => void)[] = [];
    (followMeter as jest.Mock).mockImplementation((...given: unknown[]) => {
      told.push(given[4] as (report: MeterReport) => void);
      return jest.fn();
    });
    const { person } = show();
    await person.click(screen.getByRole('button', { name: 'Record from the meter' }));
    const report = (mode: MeterMode, values: readonly number[], from = 0): MeterReport => ({
      name: 'Bench',
      simulated: true,
      turns: true,
      lost: null,
      samples: values.map((value, k) => ({ mode, value, at: 20 * (from + k) })),
      count: from + values.length,
    });
    act(() => told[0]!(report({ measures: 'volts', coupling: 'dc' }, [12, 12])));
    expect(screen.getByTestId('live').textContent).toMatch(/stands on DC volts, this asks for DC amps/);
    const amps = { measures: 'amps', coupling: 'dc' } as const;
    act(() => told[0]!(report(amps, [0, 0, 0.4, 0.9, 1.02, 1.04], 2)));
    expect(screen.getByTestId('record').textContent).toMatch(/1\.04 A; 6 values in 0\.1 s/);
    // Too few to draw a line: said, and nothing is brought.
    await person.click(screen.getByRole('button', { name: 'Stop and draw it' }));
    expect(screen.getByText(/meter gave 6 values; record until at least 8 have come/)).toBeTruthy();
    await person.click(screen.getByRole('button', { name: 'Record from the meter' }));
    act(() => told[1]!(report(amps, [0, 0, 0.1, 0.4, 0.7, 0.9, 1, 1.02, 1.04, 1.04])));
    await person.click(screen.getByRole('button', { name: 'Stop and draw it' }));
    expect(await screen.findByTestId('trace-found')).toBeTruthy();
    expect(screen.queryByText(/record until/)).toBeNull();
    localStorage.clear();
  });

  it('a coil on alternating volts is watched for its start: what it peaks at and where it settles', async () => {
    const start = seconds.map((t) =>
      t < 0.05 ? 0 : t < 0.07 ? 4.2 : 0.68 + 3.5 * Math.exp(-(t - 0.07) / 0.01),
    );
    (readTrace as jest.Mock).mockReturnValueOnce(
      run({ ok: true, value: { seconds, channels: [{ name: 'A', quantity: 'amps', values: start }] } }),
    );
    const { desk, person } = show(hoistLimits());
    await bring(person, /Bring a trace/);
    const found = await screen.findByTestId('trace-found');
    expect(found.textContent).toMatch(/4\.2 A falling to 0\.6[89] A in \d+(\.\d)? ms: it pulled in\./);
    expect(screen.getByTestId('chart').textContent).toMatch(/this one\|expected: K1 sound\|on\|settled/);
    expect(weighTrace).not.toHaveBeenCalled();
    await person.click(screen.getByRole('button', { name: 'Keep it in the job' }));
    await waitFor(() => expect(desk.readings()).toHaveLength(1));
    expect(desk.readings()[0]).toMatchObject({ kind: 'amps' });
  });
  it('of what draws no current worth watching it says so', () => {
    show({ ...driverHighSide(), parts: driverHighSide().parts.filter(({ kind }) => kind !== 'coil') });
    expect(screen.getByText(/Nothing of this circuit draws a current worth watching/)).toBeTruthy();
  });
});
