import { airClamp } from '@/core/templates/fluid';
import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { CircuitModel } from '@/core/circuit/model';
import type { ReadingKind, Test } from '@/core/circuit/schema';
import { LIVE_OFF } from '@/core/instrument/offered';
import { READING_KINDS } from '@/core/kinds/reading';
import { findLanes } from '@/core/path/lanes';
import { singleCoil } from '@/core/templates/electrical';
import { makeDiagnosisService } from '@/workers/diagnosisService';
import { justDrawn } from '@/workers/protocol';
import { turnMeter } from '../meter/actions';
import { choicesOf, Keyline, type KeylineProps } from './Keyline';
import { checkTyped } from './typedValue';

jest.mock('../meter/actions', () => ({ turnMeter: jest.fn() }));
const turned = turnMeter as unknown as jest.Mock;

const circuit = singleCoil();
const model = new CircuitModel(circuit);
const speaker = { model, lanes: findLanes(model), gaugeUnit: 'bar' as const };
const service = makeDiagnosisService();
const on = { controls: { key: 'on' } };
const VOLTS: Test = { kind: 'volts', from: 'X1.1:2', to: 'GND', setup: on };
const OHMS: Test = { kind: 'ohms', from: 'X1.1:2', to: 'Y1:2', setup: { isolated: ['G1'] } };
const INSULATION: Test = {
  kind: 'insulation',
  from: 'X1.1:2',
  to: 'GND',
  testVolts: 250,
  setup: { isolated: ['G1'], unplugged: ['X1'] },
};
const WORKS: Test = { kind: 'function', part: 'Y1', setup: on };

function show(test: Test, text = '', more: Partial<KeylineProps> = {}, of = circuit) {
  const answer = service.evaluate(justDrawn(of), [], test);
  if (!answer.ok) throw new Error(answer.message);
  const on = {
    onFold: jest.fn(),
    onKey: jest.fn(),
    onErase: jest.fn(),
    onMeter: jest.fn(),
    onLarge: jest.fn(),
    onPin: jest.fn(),
    onChoice: jest.fn(),
    onNotTried: jest.fn(),
  };
  render(
    <Keyline
      speaker={speaker}
      ranked={answer.value}
      text={text}
      check={checkTyped(text, answer.value, 12.6, 'bar')}
      askAgain={false}
      blocked={false}
      shut={false}
      folded={false}
      meterName="A usual meter"
      live={LIVE_OFF}
      {...on}
      {...more}
    />,
  );
  return on;
}
const meaning = () => screen.getByTestId('meaning').textContent;
const keys = () =>
  screen.getAllByRole('button').map((key) => key.getAttribute('aria-label') ?? key.textContent);

describe('the keyline', () => {
  it('types what is pressed, erases, pins, and never pins by itself', async () => {
    const on = show(VOLTS, '12');
    const person = userEvent.setup();
    await person.click(screen.getByRole('button', { name: '7' }));
    expect(on.onKey).toHaveBeenCalledWith('7');
    expect(on.onPin).not.toHaveBeenCalled();
    await person.click(screen.getByRole('button', { name: /erase|delete/i }));
    expect(on.onErase).toHaveBeenCalled();
    // One stands in the grid of a small screen, one at the end of a wide one.
    for (const pin of screen.getAllByRole('button', { name: 'Pin it' })) await person.click(pin);
    expect(on.onPin).toHaveBeenCalledTimes(2);
  });

  it('says in which answer a value falls before it is pinned', () => {
    show(VOLTS, '12.5');
    expect(meaning()).toMatch(/12.5 V falls in [A-Z]/);
  });

  it('says why a value is refused, and what the test wants', () => {
    show(VOLTS, '4k7');
    expect(meaning()).toMatch(/ohms|wants volts/);
  });

  it('asks again where a value fits no answer', () => {
    show(VOLTS, '-11', {});
    expect(meaning()).toBe('Fits nothing here. Check the points and the mode.');
    document.body.innerHTML = '';
    show(VOLTS, '-11', { askAgain: true });
    expect(meaning()).toMatch(/pin it once more to keep it/);
    expect(screen.getAllByRole('button', { name: 'Pin it all the same' }).length).toBeGreaterThan(0);
  });

  it('says why a live meter offers nothing, turns its dial where it can, and stands back for what is typed', async () => {
    const wrong = {
      is: 'wrongDial',
      stands: { measures: 'ohms' },
      wanted: { measures: 'volts', coupling: 'dc' },
      turns: true,
    } as const;
    show(VOLTS, '', { live: wrong });
    expect(screen.getByTestId('live').textContent).toBe('The meter stands on ohms, this asks for DC volts.');
    turned.mockResolvedValueOnce({ trouble: 'The meter stands as it was: the instrument does not answer.' });
    await userEvent.click(screen.getByRole('button', { name: 'Turn it to DC volts' }));
    expect(turned).toHaveBeenCalledWith(wrong.wanted);
    expect(screen.getByTestId('live').textContent).toMatch(/stands as it was/);
    document.body.innerHTML = '';
    show(VOLTS, '', { live: { ...wrong, turns: false } });
    expect(screen.queryByRole('button', { name: /Turn it/ })).toBeNull();
    document.body.innerHTML = '';
    show(VOLTS, '12.5', { live: wrong });
    expect(screen.queryByTestId('live')).toBeNull();
    document.body.innerHTML = '';
    show(VOLTS, '', { live: { is: 'notMoved', text: '27.41 V' } });
    expect(screen.getByTestId('live').textContent).toBe(
      'Still 27.41 V of the last place: lift a lead and set it again.',
    );
    document.body.innerHTML = '';
    // What is seen is pressed, whatever a meter says.
    show(WORKS, '', { live: { is: 'notForMeters' } });
    expect(screen.queryByTestId('live')).toBeNull();
  });

  it('has the keys of its mode: an insulation tester shows giga and more-than, ohms no minus', () => {
    show(INSULATION);
    expect(keys()).toEqual(expect.arrayContaining(['G', '>', 'M']));
    document.body.innerHTML = '';
    show(OHMS);
    expect(keys()).not.toContain('-');
    expect(keys()).toEqual(expect.arrayContaining(['k', 'M', 'OL']));
  });

  it('offers the answers of a test by eye as keys of their own', () => {
    const on = show(WORKS);
    const dead = document.querySelector('[data-choice="dead"]')!;
    fireEvent.click(dead);
    expect(on.onChoice).toHaveBeenCalledWith('dead');
    expect(screen.queryByRole('button', { name: '7' })).toBeNull();
  });

  it('of what moves takes what was seen, also a start that stops, and that nobody tried', () => {
    const on = show({ kind: 'moves', part: 'C1', setup: {} }, '', {}, airClamp());
    expect(
      [...document.querySelectorAll('[data-choice]')].map((one) => one.getAttribute('data-choice')),
    ).toEqual(['extends', 'retracts', 'moves a little', 'stays where it rests']);
    fireEvent.click(screen.getByRole('button', { name: 'not tried' }));
    expect(on.onNotTried).toHaveBeenCalled();
    expect(on.onChoice).not.toHaveBeenCalled();
  });

  it('every kind of reading that is no figure has its answers as keys', () => {
    for (const kind of Object.keys(READING_KINDS) as ReadingKind[]) {
      const { shows } = READING_KINDS[kind];
      const choices = choicesOf({ test: { kind }, outcomes: [] } as unknown as Parameters<
        typeof choicesOf
      >[0]);
      if (shows.is === 'figure') expect(choices).toBeNull();
      else expect(choices!.length).toBeGreaterThan(0);
    }
  });

  it('says that a test is shut until it is made safe', () => {
    show(OHMS, '9', { shut: true, blocked: true });
    expect(meaning()).toMatch(/safe/i);
  });

  it('the meter in hand is named, and can be changed', async () => {
    const on = show(VOLTS);
    // One stands by the value, one opens with the keys of a phone.
    for (const one of screen.getAllByRole('button', { name: 'Meter: A usual meter' }))
      await userEvent.click(one);
    expect(on.onMeter).toHaveBeenCalledTimes(2);
  });

  it('on a phone it is folded to one line, and opens by a tap', async () => {
    const on = show(VOLTS, '', { folded: true });
    const line = screen.getByText('Tap to enter').closest('button')!;
    expect(line.getAttribute('aria-expanded')).toBe('false');
    await userEvent.click(line);
    expect(on.onFold).toHaveBeenCalled();
  });
});
