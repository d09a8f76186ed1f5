import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { driverHighSide } from '@/core/templates/electrical';
import { hoistLimits } from '@/core/templates/line';
import { entryWriter } from '@/core/testing/entryWriter';
import type { Answer } from '@/workers/protocol';
import { expectTrace, readTrace, weighTrace } from '@/workers/traceClient';
import { useDesk } from '../desk/desk';
import { openDesk } from '../desk/testing/openDesk';
import { soundTraces } from './actions';
import { TraceScreen } from './TraceScreen';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
jest.mock('../desk/StepLink', () => ({
  StepLink: ({ children }: { children: string }) => <a>{children}</a>,
}));
jest.mock('../desk/JobStrip', () => ({ JobStrip: () => null }));
jest.mock('next/navigation', () => ({ useSearchParams: () => new URLSearchParams('sheet=trace&part=Y1') }));
jest.mock('./actions', () => ({ soundTraces: jest.fn() }));
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
    const fix = { part: 'Y1', work: 'Stem cleaned', spare: '', serial: '', dated: '', torque: '', seals: '' };
    const { desk, person } = show(driverHighSide(), [entryWriter()('fix', { ...fix, ratings: {} })]);
    await bring(person, /Bring a trace/);
    await waitFor(() => expect(screen.getByTestId('trace-found')).toBeTruthy());
    await person.click(await screen.findByRole('button', { name: 'Keep it in the job' }));
    await waitFor(() => expect(screen.getByText(/Kept by Tove/)).toBeTruthy());
    expect(desk.readings()).toEqual([]);
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
    expect(screen.getByTestId('chart').textContent).toMatch(/this one\|on\|settled/);
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
