import { WaveFile } from 'wavefile';
import { readTraceSound } from './traceSound';

function sound(bits: string, channels: number[][]): Uint8Array {
  const wave = new WaveFile();
  wave.fromScratch(channels.length, 8000, bits, channels.length === 1 ? channels[0]! : channels);
  return wave.toBuffer();
}

describe('a trace from a sound', () => {
  it('comes as shares of full scale, whatever its bits', () => {
    const shape = Array.from({ length: 800 }, (_one, k) => Math.sin(k / 20));
    const whole = readTraceSound(sound('16', [shape.map((one) => Math.round(32_767 * one))]));
    expect(whole.seconds[800 - 1]).toBeCloseTo(799 / 8000, 9);
    expect(whole.channels).toHaveLength(1);
    expect(whole.channels[0]!.values[31]).toBeCloseTo(shape[31]!, 3);
    const two = readTraceSound(sound('32f', [shape, shape.map((one) => -one)]));
    expect(two.channels[1]!.values[31]).toBeCloseTo(-shape[31]!, 5);
  });
  it('that is none, or too long, is refused with a sentence', () => {
    expect(() => readTraceSound(new TextEncoder().encode('not a sound at all'))).toThrow(/no WAV file/);
    expect(() => readTraceSound(sound('16', [new Array<number>(8000 * 61).fill(0)]))).toThrow(/lasts 61 s/);
    expect(() => readTraceSound(sound('16', [[]]))).toThrow(/no samples/);
  });
});
