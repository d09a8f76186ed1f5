import { WaveFile } from 'wavefile';
import { InputError } from '@/core/circuit/inputError';
import type { TraceFile } from './traceFile';

/** Longer sound than this is no trace of one switching, seconds. */
const MOST_SECONDS = 60;

/** Reads a trace from a WAV file, such as a clamp into a sound input: values are shares of full scale, from -1 to 1. Throws `InputError` where it is none. */
export function readTraceSound(bytes: Uint8Array): TraceFile {
  let sound: WaveFile;
  try {
    sound = new WaveFile(bytes);
    sound.toBitDepth('32f');
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    throw new InputError('trace', `is no WAV file that can be read (${why})`);
  }
  const { sampleRate, numChannels } = sound.fmt as { sampleRate: number; numChannels: number };
  const samples = sound.getSamples(false, Float64Array) as unknown as Float64Array | Float64Array[];
  const channels = numChannels === 1 ? [samples as Float64Array] : (samples as Float64Array[]);
  const count = channels[0]?.length ?? 0;
  if (count < 8) throw new InputError('trace', 'the sound has no samples');
  if (count / sampleRate > MOST_SECONDS)
    throw new InputError(
      'trace',
      `lasts ${Math.round(count / sampleRate)} s; cut out the switching, ${MOST_SECONDS} s at the most`,
    );
  return {
    seconds: Array.from({ length: count }, (_one, k) => k / sampleRate),
    channels: channels.map((values, k) => ({
      name: `channel ${k + 1}`,
      quantity: null,
      values: [...values],
    })),
  };
}
