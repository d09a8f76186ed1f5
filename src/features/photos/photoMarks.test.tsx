import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { PhotoMarks } from './PhotoMarks';

jest.mock('../desk/desk', () => ({ useDesk: () => ({ log: { pictures: new Map() } }) }));

type Marks = Parameters<typeof PhotoMarks>[0]['marks'];
let kept: Marks = [];
function Bench() {
  const [marks, setMarks] = useState<Marks>([]);
  kept = marks;
  return <PhotoMarks photo="aa" marks={marks} onChange={setMarks} />;
}
/** The picture has come and stands 200 by 100 on the page. */
function standing() {
  render(<Bench />);
  fireEvent.load(screen.getByAltText('The picture that is marked'));
  const frame = screen.getByTestId('marks');
  frame.getBoundingClientRect = () => new DOMRect(0, 0, 200, 100);
  return frame;
}
/** jsdom has no pointer events of its own: a mouse event under their name carries the place. */
const point = (frame: Element, type: string, clientX: number, clientY: number) =>
  fireEvent(frame, new MouseEvent(type, { bubbles: true, clientX, clientY }));

describe('marks on a picture', () => {
  it('none can be drawn before the picture stands', () => {
    render(<Bench />);
    expect(screen.queryByTestId('marks')).toBeNull();
  });

  it('an arrow goes from where the drag began to where it ended, and never off the picture', () => {
    const frame = standing();
    point(frame, 'pointerdown', 20, 10);
    point(frame, 'pointermove', 100, 50);
    point(frame, 'pointermove', 400, 50);
    point(frame, 'pointerup', 400, 50);
    expect(kept).toEqual([{ kind: 'arrow', at: [0.1, 0.1], to: [1, 0.5] }]);
  });

  it('a drag that is broken off leaves nothing', () => {
    const frame = standing();
    point(frame, 'pointerdown', 20, 10);
    point(frame, 'pointercancel', 20, 10);
    expect(kept).toEqual([]);
  });

  it('a ring and words are made by keys alone, and taken off again', async () => {
    const frame = standing();
    const person = userEvent.setup();
    await person.click(screen.getByRole('button', { name: 'Ring' }));
    frame.focus();
    await person.keyboard('{ArrowRight}{Enter}{ArrowDown}{ArrowDown}{Shift>}{ArrowRight}{/Shift}{Enter}');
    expect(kept).toEqual([{ kind: 'ring', at: [0.52, 0.5], to: [0.525, 0.54] }]);
    await person.click(screen.getByRole('button', { name: 'Words' }));
    await person.type(screen.getByLabelText('Words to write on it'), 'rubbed through');
    frame.focus();
    await person.keyboard('{ArrowUp}{Enter}');
    expect(kept[1]).toEqual({ kind: 'text', at: [0.5, 0.48], text: 'rubbed through' });
    await person.keyboard('{Backspace}');
    expect(kept).toHaveLength(1);
  });

  it('Backspace gives up a mark that is begun and leaves the others', async () => {
    const frame = standing();
    const person = userEvent.setup();
    frame.focus();
    await person.keyboard('{Enter}{ArrowDown}{Enter}{Enter}{ArrowDown}{Backspace}');
    expect(kept).toHaveLength(1);
    await person.keyboard('{ArrowDown}{Enter}');
    expect(kept).toHaveLength(1);
  });
});
