import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { CircuitModel } from '@/core/circuit/model';
import { isolationPlan } from '@/core/safety/isolationPlan';
import { airClamp } from '@/core/templates/fluid';
import { contactorTwoSupplies } from '@/core/templates/line';
import { useDesk } from '../desk/desk';
import { deskOf, logOf } from '../desk/testing/deskOf';
import { PointForm } from './PointForm';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
const asked = useDesk as unknown as jest.Mock;

function show(circuit: Parameters<typeof deskOf>[0], energy: string) {
  const log = logOf();
  const done = jest.fn();
  asked.mockImplementation(() => deskOf(circuit, log));
  const point = isolationPlan(new CircuitModel(circuit)).find((one) => one.energy === energy)!;
  render(<PointForm point={point} onDone={done} />);
  const press = () => userEvent.click(screen.getByRole('button', { name: 'Closed and proved' }));
  return { log, done, point, press };
}

describe('a point closed and proved', () => {
  it.each([
    ['12.6 V', /it is not dead/],
    ['120V', /it is not dead/],
    ['1k', /it is not dead/],
    ['OL', /over range/],
    ['dead', /is no value/],
    ['0 ohms', /Only volts/],
    ['', /no value/],
  ])('a place that reads %j is not closed, and everything typed stays', async (typed, words) => {
    const { log, done, press } = show(contactorTwoSupplies(), 'line');
    const person = userEvent.setup();
    await person.type(screen.getByLabelText('Known source'), '120');
    await person.type(screen.getByLabelText('Known source again'), '120');
    const places = screen.getAllByLabelText(/\(was /);
    for (const place of places) await person.type(place, '0.0');
    await person.clear(places[0]!);
    if (typed) await person.type(places[0]!, typed);
    await press();
    expect((await screen.findByRole('alert')).textContent).toMatch(words);
    expect(log.view().waiting).toEqual([]);
    expect(done).not.toHaveBeenCalled();
    expect((places[0] as HTMLInputElement).value).toBe(typed);
  });

  it('with silence everywhere it is closed, with its values, their places and the meter', async () => {
    const { log, done, point, press } = show(contactorTwoSupplies(), 'line');
    const person = userEvent.setup();
    await person.type(screen.getByLabelText('Meter'), 'Shed meter 3');
    await person.type(screen.getByLabelText('Known source'), '120 V');
    for (const place of screen.getAllByLabelText(/\(was /)) await person.type(place, '20mV');
    await person.type(screen.getByLabelText('Known source again'), '119');
    await press();
    expect(done).toHaveBeenCalled();
    const [entry] = log.view().waiting;
    expect(entry!.body).toMatchObject({
      point: point.point,
      proved: {
        meter: 'Shed meter 3',
        knownBefore: { value: 120, unit: 'V', typed: '120 V' },
        work: point.prove.map(({ from, to }) => ({ from, to, measured: { value: 0.02, unit: 'V' } })),
      },
    });
  });

  it('air asks how it was shown, and a gauge that still reads keeps it open', async () => {
    const { log, press } = show(airClamp(), 'air');
    const person = userEvent.setup();
    await press();
    expect((await screen.findByRole('alert')).textContent).toMatch(/Say how it was shown/);
    await person.type(screen.getByLabelText(/Shown by/), 'tried, rests');
    await person.type(screen.getByLabelText('Gauge, bar'), '75 psi');
    await press();
    expect(screen.getByRole('alert').textContent).toMatch(/75 psi is over 0.05 bar/);
    await person.clear(screen.getByLabelText('Gauge, bar'));
    await press();
    expect(log.view().waiting).toHaveLength(1);
  });
});
