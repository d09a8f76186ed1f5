import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { singleCoil } from '@/core/templates/electrical';
import { openDesk } from '../desk/testing/openDesk';
import { useDesk } from '../desk/desk';
import { pinnedSheets } from '../drawings/actions';
import { ProbePicture } from './ProbePicture';

jest.mock('../desk/desk', () => ({ useDesk: jest.fn() }));
jest.mock('../drawings/actions', () => ({ pinnedSheets: jest.fn() }));
const volts = { kind: 'volts', from: 'X1.1:2', to: 'Y1:2', setup: {} } as const;
const photo = {
  id: '1',
  name: 'Under the seat',
  photo: 'a'.repeat(64),
  pins: [
    { part: '@X1.1:2', x: 0.3, y: 0.4 },
    { part: '@Y1:2', x: 0.5, y: 0.4 },
  ],
};
let machine = 0;
beforeEach(() => (pinnedSheets as unknown as jest.Mock).mockClear());
function show(answer: object | Error, test: React.ComponentProps<typeof ProbePicture>['test'] = volts) {
  const asked = pinnedSheets as unknown as jest.Mock;
  if (answer instanceof Error) asked.mockRejectedValueOnce(answer);
  else asked.mockResolvedValueOnce(answer);
  const desk = openDesk(singleCoil(), [], { machineCode: `T-${machine++}` });
  (useDesk as unknown as jest.Mock).mockImplementation(desk.useDesk);
  return render(<ProbePicture test={test} />);
}

describe('where the probes go, on the machine’s own picture', () => {
  it('has a mark for each lead, and is shown large when it is pressed', async () => {
    show({ sheets: [photo] });
    const key = await screen.findByRole('button', { name: /Under the seat/ });
    const image = key.querySelector('img')!;
    Object.defineProperty(image, 'naturalWidth', { value: 1600 });
    Object.defineProperty(image, 'naturalHeight', { value: 1200 });
    fireEvent.load(image);
    expect(screen.getByTitle('red').textContent).toBe('+');
    expect(screen.getByTitle('black').textContent).toBe('−');
    await userEvent.click(key);
    expect(screen.getByRole('dialog', { name: 'Under the seat' })).toBeTruthy();
  });
  it('is not there where no picture shows it, or the server is away', async () => {
    const { unmount } = show({ sheets: [photo] }, { kind: 'fuse', part: 'F1', setup: {} });
    await waitFor(() => expect(pinnedSheets).toHaveBeenCalled());
    expect(screen.queryByTestId('probe-picture')).toBeNull();
    unmount();
    show(new Error('away'));
    await waitFor(() => expect(pinnedSheets).toHaveBeenCalledTimes(2));
    expect(screen.queryByTestId('probe-picture')).toBeNull();
  });
});
