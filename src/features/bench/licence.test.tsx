import { render, screen } from '@testing-library/react';
import { licensedFor } from '@/core/safety/licensed';
import { Licence } from './Licence';

describe('a sheet about refrigerant', () => {
  it('says who is licensed, and that it stays shut while nobody is named', () => {
    const { rerender, container } = render(<Licence licence={licensedFor('evacuation', 'Henrike')} />);
    expect(screen.getByTestId('licence').textContent).toMatch(
      /Only licensed people .*here: Henrike\..*licensed practice come first/,
    );
    rerender(<Licence licence={licensedFor('evacuation', '')} />);
    expect(screen.getByTestId('licence').textContent).toMatch(/names nobody\. This sheet stays shut/);
    expect(screen.getByRole('link', { name: 'Site policy' }).getAttribute('href')).toBe('/policy');
    rerender(<Licence licence={licensedFor('coil', '')} />);
    expect(container.textContent).toBe('');
  });
});
