import { act, fireEvent, render, screen } from '@testing-library/react';
import { coilSheet } from '@/core/sheets/coil/coil';
import { judgeInsulation, insulationSheet } from '@/core/sheets/insulation/insulation';
import { DutyTimer } from './DutyTimer';
import { InsulationRunPanel, type RunLine } from './InsulationRunPanel';

const HEAD = { format: 'spiraxis-sheet', version: 1 };
const insulation = (more: object = {}) =>
  insulationSheet.parse({
    ...HEAD,
    sheet: 'insulation',
    conductors: ['7', '8'],
    frame: 'frame',
    circuitVolts: 24,
    testVolts: 250,
    ...more,
  });
const wait = (seconds: number) => act(() => jest.advanceTimersByTime(1000 * seconds));
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

describe('clocks of the bench', () => {
  beforeEach(() => {
    localStorage.clear();
    jest.useFakeTimers({ now: 1_800_000_000_000 });
  });
  afterEach(() => jest.useRealTimers());

  const open = (lines: RunLine[], more: object = {}) => {
    const sheet = insulation(more);
    return render(
      <InsulationRunPanel
        sheet={sheet}
        answer={judgeInsulation(sheet)}
        onLine={(line) => {
          lines.push(line);
          return null;
        }}
      />,
    );
  };
  const start = () => {
    fireEvent.click(screen.getByRole('checkbox', { name: 'Clear' }));
    press('Test volts are on: start');
  };

  it('a timed test reads at its marks, and holds the conductor until it is shown dead, across a reload', () => {
    const lines: RunLine[] = [];
    const { unmount } = open(lines);
    const begin = screen.getByRole<HTMLButtonElement>('button', { name: 'Test volts are on: start' });
    expect(begin.disabled).toBe(true);
    start();
    wait(31);
    type('Ohms at 0:30', 'wet');
    press('Take it');
    expect(screen.getByRole('alert').textContent).toMatch(/“wet” is no reading of ohms/);
    type('Ohms at 0:30', '40M');
    press('Take it');
    wait(30);
    type('Ohms at 1:00', 'OL');
    press('Take it');
    expect(lines).toEqual([
      { from: '7', to: 'frame', ohms: 4e7, typed: '40M', seconds: 30 },
      { from: '7', to: 'frame', ohms: 'OL', typed: 'OL', seconds: 60 },
    ]);
    expect(screen.getByTestId('run').dataset['state']).toBe('discharging');
    unmount();
    wait(100);
    open(lines);
    expect(screen.getByTestId('run').dataset['state']).toBe('discharging');
    wait(150);
    press('Measured dead');
    expect(screen.getByRole('alert').textContent).toMatch(/Measure it first/);
    type('Volts, 7 to frame', '38');
    press('Measured dead');
    expect(screen.getByRole('alert').textContent).toMatch(/does not show it dead/);
    type('Volts, 7 to frame', '0.0 V');
    press('Measured dead');
    expect(screen.getByTestId('run').dataset['state']).toBe('none');
  });

  it('broken off, it still has to be discharged', () => {
    open([]);
    start();
    wait(10);
    press('Test volts are off: stop');
    expect(screen.getByRole('timer').textContent).toBe('0:40');
  });

  it('does not start without volts, over the class, or with electronics on', () => {
    open([], { testVolts: null });
    expect(screen.getByText(/Type the volts of the circuit and the test volts first/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: /start/ })).toBeNull();
  });
  it.each([{ testVolts: 500 }, { electronic: ['E1'] }])('is shut with %o', (more) => {
    open([], more);
    expect(screen.getByText(/Not with these test volts/)).toBeTruthy();
  });

  it('a coil on the bench supply: warned at what its label allows, then cooled', () => {
    render(
      <DutyTimer
        sheet={coilSheet.parse({ ...HEAD, sheet: 'coil', ohms: [31], cycleSeconds: 300, dutyShare: 0.25 })}
      />,
    );
    press('Switched on');
    wait(74);
    expect(screen.queryByRole('alert')).toBeNull();
    wait(2);
    expect(screen.getByRole('alert').textContent).toMatch(/Off now/);
    press('Switched off');
    expect(screen.getByRole('timer').textContent).toBe('3:48');
    wait(229);
    expect(screen.getByText(/cooled as long as its label asks/)).toBeTruthy();
  });

  it('without a duty on its label there is no limit, and none is made up', () => {
    render(<DutyTimer sheet={coilSheet.parse({ ...HEAD, sheet: 'coil', ohms: [31] })} />);
    press('Switched on');
    wait(4000);
    expect(screen.getByTestId('duty').dataset['state']).toBe('on');
    expect(screen.getByText(/no limit/)).toBeTruthy();
  });
});
