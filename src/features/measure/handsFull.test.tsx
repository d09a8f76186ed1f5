import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { CircuitModel } from '@/core/circuit/model';
import { LIVE_OFF } from '@/core/instrument/offered';
import { findLanes } from '@/core/path/lanes';
import { singleCoil } from '@/core/templates/electrical';
import { makeDiagnosisService } from '@/workers/diagnosisService';
import { justDrawn } from '@/workers/protocol';
import { HandsFull } from './HandsFull';

const circuit = singleCoil();
const model = new CircuitModel(circuit);
const speaker = { model, lanes: findLanes(model), gaugeUnit: 'bar' as const };
const answer = makeDiagnosisService().evaluate(justDrawn(circuit), [], {
  kind: 'volts',
  from: 'X1.1:2',
  to: 'GND',
  setup: { controls: { key: 'on' } },
});
if (!answer.ok) throw new Error(answer.message);
const ranked = answer.value;

function show(more: Partial<React.ComponentProps<typeof HandsFull>> = {}) {
  const on = { onPin: jest.fn(), onClose: jest.fn() };
  render(
    <HandsFull
      speaker={speaker}
      ranked={ranked}
      text=""
      meaning="12.4 V falls in A"
      live={LIVE_OFF}
      hold={{ text: 'The machine may move.', mustTick: false }}
      back={{}}
      blocked={false}
      {...on}
      {...more}
    />,
  );
  return on;
}
const voice = { speak: jest.fn(), cancel: jest.fn() };
function withVoice() {
  Object.assign(window, { speechSynthesis: voice });
  Object.assign(globalThis, {
    SpeechSynthesisUtterance: class {
      lang = '';
      constructor(readonly text: string) {}
    },
  });
}
afterEach(() => {
  Reflect.deleteProperty(window, 'speechSynthesis');
  localStorage.clear();
  jest.clearAllMocks();
});

describe('the large view', () => {
  it('shows one number and what it means, what can hurt, and pins', async () => {
    const on = show({ text: '12.4 V' });
    expect(screen.getByTestId('large-value').textContent).toBe('12.4 V');
    expect(screen.getByRole('status').textContent).toBe('12.4 V falls in A');
    expect(screen.getByText('The machine may move.')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Pin it' }));
    expect(on.onPin).toHaveBeenCalled();
    await userEvent.click(screen.getByRole('button', { name: 'Close the large view' }));
    expect(on.onClose).toHaveBeenCalled();
  });
  it('shows a display on its way, and why nothing is there', () => {
    show({ live: { is: 'moving', text: '8.1 V' } });
    expect(screen.getByTestId('large-value').textContent).toBe('8.1 V');
    expect(screen.getByRole('button', { name: 'Pin it' }).getAttribute('aria-disabled')).toBe('true');
  });
  it('has no voice where the browser has none', () => {
    show();
    expect(screen.queryByLabelText('Read aloud')).toBeNull();
  });
  it('reads the test aloud only once that was asked for, what can hurt first, and remembers it', async () => {
    withVoice();
    show();
    expect(voice.speak).not.toHaveBeenCalled();
    await userEvent.click(screen.getByLabelText('Read aloud'));
    const [said] = voice.speak.mock.calls.at(-1) as [{ text: string }];
    expect(said.text).toMatch(/^The machine may move\. .*Read DC volts/);
    cleanup();
    show();
    expect(voice.speak).toHaveBeenCalledTimes(2);
  });
});
