import { render, screen } from '@testing-library/react';
import { Licence } from './Licence';

describe('a sheet about refrigerant', () => {
  it('says who opens such a circuit, and that it stays shut for who is not licensed', () => {
    const { rerender } = render(<Licence open />);
    expect(screen.getByTestId('licence').textContent).toMatch(
      /Only licensed people .*Recover first.*licensed practice come first/,
    );
    rerender(<Licence open={false} />);
    expect(screen.getByTestId('licence').textContent).toMatch(
      /not said to be one here\. This sheet stays shut/,
    );
  });
});
