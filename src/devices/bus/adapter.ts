import type { Setup } from '@/core/circuit/schema';
import type { BusQuestion } from '@/core/codes/requests';

/** What a bus says while it is open. */
export interface BusListener {
  /** The link is up; frames may come. */
  onUp(): void;
  /** One frame as a line of text, `(seconds) name ID#DATA`. */
  onLine(line: string): void;
  /** The link is gone, and why; the adapter tries again by itself until it is closed. */
  onLost(reason: string): void;
}

export interface BusLink {
  close(): void;
  /** Asks one of the questions that the standard lets anybody ask; what answers comes as frames. False while nobody is there to hear it. */
  ask(question: BusQuestion): boolean;
}

/** A way to a machine's bus. Others than the shipped simulator implement this and nothing else. */
export interface BusAdapter {
  /** What a person would call it. */
  readonly name: string;
  open(machine: string, listener: BusListener): BusLink;
  /**
   * A simulated machine can be handled from here: puts one of its functions into a set-up. Throws with a line a person
   * can read. Absent where the machine is real: there a person turns the key and pulls the plug.
   */
  handle?(machine: string, functionName: string, setup: Setup): Promise<void>;
  /** How a simulated machine stands: the set-up of each of its functions. */
  standing?(machine: string): Promise<Record<string, Setup>>;
}
