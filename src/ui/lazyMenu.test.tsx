import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { LazyMenu } from './LazyMenu';

function show() {
  const [onOpen, onSelect] = [jest.fn(), jest.fn()];
  render(
    <LazyMenu onOpen={onOpen} trigger={<button type="button">More</button>}>
      {({ Panel, Item }) => (
        <Panel>
          <Item onSelect={onSelect}>First</Item>
          <Item>Second</Item>
        </Panel>
      )}
    </LazyMenu>,
  );
  return { onOpen, onSelect, trigger: () => screen.getByRole('button', { name: 'More', hidden: true }) };
}

describe('a menu that comes when it is reached for', () => {
  it('opens at the press that called for it, and again at the next', async () => {
    const person = userEvent.setup();
    const { onOpen, onSelect, trigger } = show();
    expect(trigger().getAttribute('aria-haspopup')).toBe('menu');
    expect(screen.queryByRole('menu')).toBeNull();
    await person.click(trigger());
    await person.click(await screen.findByRole('menuitem', { name: 'First' }));
    expect(onSelect).toHaveBeenCalledTimes(1);
    expect(screen.queryByRole('menu')).toBeNull();
    await person.click(trigger());
    expect(await screen.findByRole('menu')).toBeTruthy();
    expect(onOpen).toHaveBeenCalledTimes(2);
  });

  it('opens by the keyboard, and gives the place back when it closes', async () => {
    const person = userEvent.setup();
    const { trigger } = show();
    trigger().focus();
    await person.keyboard('{ArrowDown}');
    await screen.findByRole('menu');
    await person.keyboard('{Escape}');
    expect(screen.queryByRole('menu')).toBeNull();
    expect(document.activeElement).toBe(trigger());
  });
});
