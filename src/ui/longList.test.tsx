import { render, screen } from '@testing-library/react';
import { ALL_AT_ONCE, LongList } from './LongList';

const show = (count: number) =>
  render(
    <LongList
      items={Array.from({ length: count }, (_one, at) => `row ${at}`)}
      keyOf={(one) => one}
      rowHeight={50}
      label="Rows"
    >
      {(one) => one}
    </LongList>,
  );

// jsdom lays nothing out.
beforeAll(() => {
  Object.defineProperty(HTMLElement.prototype, 'offsetHeight', { value: 50 });
});

describe('a list of any length', () => {
  it('stands whole on the page while it is short', () => {
    show(ALL_AT_ONCE);
    expect(screen.getAllByRole('listitem')).toHaveLength(ALL_AT_ONCE);
  });

  it('has only what is near the window when it is long, and says which of how many', () => {
    show(5000);
    const rows = screen.getAllByRole('listitem');
    expect(rows.length).toBeLessThan(100);
    expect(rows[0]!.textContent).toBe('row 0');
    expect(rows[0]!.getAttribute('aria-setsize')).toBe('5000');
    expect(screen.getByRole('list').style.height).toBe(`${5000 * 50}px`);
  });
});
