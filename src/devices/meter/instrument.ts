import type { MeterMode, MeterSample } from '@/core/instrument/meterMode';

/** A measuring instrument that can be asked. Every way to one (a network, a serial plug, the shipped simulator) implements this and nothing else. */
export interface Instrument {
  /** What it calls itself. */
  identify(): Promise<string>;
  /** Where its dial stands; null for a function that no test here wants. */
  mode(): Promise<MeterMode | null>;
  /** Turns the dial. Absent where only a hand can. */
  turnTo?(mode: MeterMode): Promise<void>;
  /** One value as it is shown now; null where it shows none yet. */
  read(): Promise<MeterSample | null>;
  /** Ends all that is under way. */
  close(): void;
}
