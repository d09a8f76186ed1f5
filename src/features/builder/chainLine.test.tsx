import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { emptyDrawing, type Drawing } from '@/core/draw/layChain';
import { ChainLine } from './ChainLine';

let drawn: Drawing;
function Bench() {
  const [drawing, setDrawing] = useState(() => emptyDrawing('Bench'));
  drawn = drawing;
  return (
    <>
      <ChainLine drawing={drawing} known={{ parts: [], controls: {} }} onDrawing={setDrawing} />
      <button>after it</button>
    </>
  );
}
function show() {
  render(<Bench />);
  return {
    line: screen.getByRole<HTMLInputElement>('combobox', { name: 'Chain of parts' }),
    person: userEvent.setup(),
  };
}
const offers = () => within(screen.getByRole('listbox', { name: 'To pick' }));
const chosen = () => offers().queryByRole('option', { selected: true })?.textContent;
const kinds = () => drawn.circuit.parts.map(({ kind }) => kind);

describe('the line a run is typed into', () => {
  it('says what it would draw while one types, draws it on Enter and is empty again', async () => {
    const { line, person } = show();
    await person.type(line, 'battery 24, fuse 5, wire, coil 30, ground');
    expect(screen.getByRole('status').textContent).toMatch(/4 parts; Enter draws it/);
    await person.keyboard('{Enter}');
    expect(kinds()).toEqual(['source', 'fuse', 'wire', 'coil']);
    expect(line.value).toBe('');
  });

  it('what cannot be drawn is said and stays in the line', async () => {
    const { line, person } = show();
    await person.type(line, 'battery 24, flux capacitor{Enter}');
    expect(screen.getByRole('status').textContent).toMatch(/flux capacitor/);
    expect(line.value).toBe('battery 24, flux capacitor');
    expect(kinds()).toEqual([]);
  });

  it('offers are chosen by arrow keys; Enter takes the one stood on and does not draw', async () => {
    const { line, person } = show();
    await person.type(line, 'battery 24, fu');
    expect(chosen()).toBeUndefined();
    await person.keyboard('{ArrowDown}');
    expect(chosen()).toBe('fuse');
    await person.keyboard('{Enter}');
    expect(line.value).toBe('battery 24, fuse');
    expect(kinds()).toEqual([]);
    await person.keyboard('{Enter}');
    expect(kinds()).toEqual(['source', 'fuse']);
  });

  it('typing on leaves the offers, and Escape empties the line', async () => {
    const { line, person } = show();
    await person.type(line, 'fu{ArrowDown}');
    expect(chosen()).toBe('fuse');
    await person.type(line, 's');
    expect(chosen()).toBeUndefined();
    await person.keyboard('{Escape}');
    expect(line.value).toBe('');
  });

  it('Tab leaves the line and completes nothing', async () => {
    const { line, person } = show();
    await person.type(line, 'fu');
    await person.tab();
    expect(line.value).toBe('fu');
    expect(document.activeElement).not.toBe(line);
  });

  it('a pick by finger goes on from what is typed, or begins the next item', async () => {
    const { line, person } = show();
    await person.click(offers().getByRole('option', { name: 'battery' }));
    expect(line.value).toBe('battery');
    await person.type(line, ' 24, co');
    await person.click(offers().getByRole('option', { name: 'coil' }));
    expect(line.value).toBe('battery 24, coil');
  });
});
