import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { GaugeMark } from '@/core/units/quantities';
import { useDesk } from './desk';
import { FigureForm } from './FigureForm';

jest.mock('./desk', () => ({ useDesk: jest.fn() }));
const marked = (gaugeUnit: GaugeMark) =>
  jest.mocked(useDesk).mockReturnValue({ speaker: { gaugeUnit } } as ReturnType<typeof useDesk>);
beforeEach(() => marked('bar'));

function show(more: Partial<Parameters<typeof FigureForm>[0]> = {}) {
  const onPin = jest.fn();
  render(<FigureForm quantity="amps" label="Amps" onPin={onPin} {...more} />);
  const field = screen.getByLabelText<HTMLInputElement>(more.label ?? 'Amps');
  return { onPin, field, type: (text: string) => userEvent.type(field, `${text}{Enter}`) };
}

describe('a figure typed and pinned', () => {
  it('keeps the unit that was typed, and its own where none was', async () => {
    const { onPin, type } = show();
    await type('640 mA');
    await type('1.8');
    expect(onPin.mock.calls).toEqual([[{ value: 0.64, typed: '640 mA' }], [{ value: 1.8, typed: '1.8 A' }]]);
  });

  it.each([
    ['27.4 V', /“27.4 V” is no current; type amps/],
    ['hot', /“hot” is no current/],
    ['OL', /over range/],
  ])('%s is refused with a sentence and stays in the field', async (text, words) => {
    const { onPin, field, type } = show();
    await type(text);
    expect(onPin).not.toHaveBeenCalled();
    expect(document.body.textContent).toMatch(words);
    expect(field.value).toBe(text);
  });

  it('over range is an answer where the form takes it, and a pressure counts in the unit typed', async () => {
    const bench = show({ quantity: 'ohms', label: 'Spare', takesOverRange: true });
    await bench.type('OL');
    expect(bench.onPin).toHaveBeenCalledWith({ value: 'OL', typed: 'OL' });
    const gauge = show({ quantity: 'pressure', label: 'Bar at P' });
    await gauge.type('75 psi');
    expect(gauge.onPin.mock.calls[0][0].value).toBeCloseTo(517.1, 1);
  });

  it('has large keys under a finger, where it has the room for them', async () => {
    const plain = window.matchMedia('all');
    const look = jest
      .spyOn(window, 'matchMedia')
      .mockImplementation((media) => ({ ...plain, matches: media === '(pointer: coarse)' }));
    const { onPin, field } = show({ quantity: 'ohms', label: 'Coil', takesOverRange: true, largeKeys: true });
    expect(field.inputMode).toBe('none');
    for (const key of ['2', '7', '.', '5', '4', 'erase'])
      await userEvent.click(screen.getByRole('button', { name: key }));
    expect(field.value).toBe('27.5');
    await userEvent.click(screen.getByRole('button', { name: 'Pin' }));
    await userEvent.click(screen.getByRole('button', { name: 'OL' }));
    await userEvent.click(screen.getByRole('button', { name: 'Pin' }));
    expect(onPin.mock.calls.map(([{ value }]) => value)).toEqual([27.5, 'OL']);
    look.mockRestore();
    const inRow = show({ label: 'Amps in a row' });
    expect(inRow.field.inputMode).toBe('decimal');
  });

  it('a display that wanders is typed value by value where the form takes it, and counts by its middle', async () => {
    const { onPin, field, type } = show({
      quantity: 'ohms',
      label: 'Coil',
      takesOverRange: true,
      takesWandering: true,
    });
    await type('31~OL~28.5');
    expect(onPin).toHaveBeenLastCalledWith({
      value: 28.5,
      typed: '31 Ω~OL~28.5 Ω',
      wandered: [31, 'OL', 28.5],
    });
    await userEvent.type(field, '31');
    await userEvent.click(screen.getByRole('button', { name: 'wanders, next value' }));
    await userEvent.keyboard('{Enter}');
    expect(onPin).toHaveBeenLastCalledWith({ value: 31, typed: '31 Ω' });
    await type('31~hot');
    expect(document.body.textContent).toMatch(/“hot” is no resistance/);
    expect(field.value).toBe('31~hot');
    expect(onPin).toHaveBeenCalledTimes(2);
    const plain = show({ quantity: 'ohms', label: 'Bench' });
    await plain.type('31~28');
    expect(plain.onPin).not.toHaveBeenCalled();
  });

  it('a bare pressure is in what the gauges are marked in', async () => {
    marked('psi');
    const { onPin, field, type } = show({ quantity: 'pressure', label: 'psi at P' });
    expect(field.placeholder).toBe('psi');
    await type('75');
    expect(onPin.mock.calls[0][0]).toEqual({ value: expect.closeTo(517.1, 1), typed: '75 psi' });
    await type('hot');
    expect(document.body.textContent).toMatch(/“hot” is no pressure; type psi, as 75/);
  });
});
