import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ListenForClick } from './ListenForClick';

const stopped = jest.fn();
const getUserMedia = jest.fn();
let samples = new Float32Array(0);

class Recorder {
  state = 'inactive';
  ondataavailable: (event: { data: Blob }) => void = () => undefined;
  onstop: () => void = () => undefined;
  onerror: () => void = () => undefined;
  start() {
    this.state = 'recording';
    // Nobody waits four seconds for a test.
    setTimeout(() => this.stop(), 5);
  }
  stop() {
    if (this.state === 'inactive') return;
    this.state = 'inactive';
    this.ondataavailable({ data: { size: 1 } as Blob });
    this.onstop();
  }
}

beforeEach(() => {
  getUserMedia.mockReset().mockResolvedValue({ getTracks: () => [{ stop: stopped }] });
  stopped.mockClear();
  Object.defineProperty(navigator, 'mediaDevices', { value: { getUserMedia }, configurable: true });
  Object.assign(window, { MediaRecorder: Recorder });
  Object.assign(globalThis, {
    AudioContext: class {
      decodeAudioData = () => Promise.resolve({ sampleRate: 8000, getChannelData: () => samples });
      close = () => Promise.resolve();
    },
  });
  Blob.prototype.arrayBuffer = () => Promise.resolve(new ArrayBuffer(1));
});

describe('listening for a click', () => {
  it('says when it heard one, keeps nothing, and leaves the answer to the person', async () => {
    samples = new Float32Array(16_000);
    for (let k = 0; k < 60; k++) samples[9600 + k] = k % 2 ? 0.4 : -0.4;
    render(<ListenForClick />);
    expect(getUserMedia).not.toHaveBeenCalled();
    await userEvent.click(screen.getByRole('button', { name: 'Listen for it' }));
    await waitFor(() =>
      expect(screen.getByRole('status').textContent).toBe('A sharp sound after 1.2 s. Was that this one?'),
    );
    expect(stopped).toHaveBeenCalled();
  });
  it('says that nothing sharp was heard', async () => {
    samples = new Float32Array(16_000);
    render(<ListenForClick />);
    await userEvent.click(screen.getByRole('button', { name: 'Listen for it' }));
    await waitFor(() => expect(screen.getByRole('status').textContent).toMatch(/^Nothing sharp/));
  });
  it('a microphone that is refused is said, and one that is not there is not offered', async () => {
    getUserMedia.mockRejectedValueOnce(new Error('denied'));
    const { unmount } = render(<ListenForClick />);
    await userEvent.click(screen.getByRole('button', { name: 'Listen for it' }));
    await waitFor(() => expect(screen.getByRole('status').textContent).toMatch(/Use your ear/));
    unmount();
    Object.defineProperty(navigator, 'mediaDevices', { value: undefined, configurable: true });
    render(<ListenForClick />);
    expect(screen.queryByTestId('listen')).toBeNull();
  });
});
