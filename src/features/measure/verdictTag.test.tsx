import { render, screen, within } from '@testing-library/react';
import { twoWayPair } from '@/core/templates/electrical';
import { entryWriter } from '@/core/testing/entryWriter';
import { useDesk } from '../desk/desk';
import { openDesk } from '../desk/testing/openDesk';
import { VerdictTag } from './VerdictTag';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
jest.mock('../desk/StepLink', () => ({
  StepLink: ({ children }: { children: string }) => <a>{children}</a>,
}));

/** What the screen says where no test is left and the doubt stands so. */
function left(shares: Record<string, number>, entries: Parameters<typeof openDesk>[1] = []) {
  const desk = openDesk(twoWayPair(), entries);
  (useDesk as unknown as jest.Mock).mockImplementation(desk.useDesk);
  const suspects = Object.entries(shares).map(([part, share]) => ({
    part,
    fault: 'open' as const,
    share,
    for: [],
    against: [],
  }));
  render(
    <VerdictTag
      speaker={desk.speaker}
      outlook={
        {
          diagnosis: { verdict: { state: 'keepTesting', because: 'tooLittle', needed: 0.9 }, suspects },
        } as never
      }
      readings={[]}
      next={undefined}
      onGoOn={() => undefined}
    />,
  );
  return within(screen.getByTestId('nothing-left'));
}

describe('where no test is left', () => {
  it('says which parts it is between, what to swap, and what goes before any change', () => {
    const said = left({ Y1: 0.6, 'X1.1': 0.35 });
    said.getByRole('heading', { name: 'Y1 or X1.1: no test here tells them apart' });
    said.getByText(/Y2 is like Y1: put each in the other’s place/);
    said.getByText(/Or try a known good part: Y1 first/);
    said.getByText(/Make it safe before anything is changed/);
    expect(said.queryByText(/passed over/)).toBeNull();
  });

  it('reminds of what was passed over', () => {
    const skipped = entryWriter()('noReach', { node: 'GND' });
    expect(left({ 'X1.1': 0.6 }, [skipped]).getByText(/out of reach or passed over/)).not.toBeNull();
  });
});
