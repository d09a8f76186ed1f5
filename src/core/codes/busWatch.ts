import { LiveCodes, LOST_SECONDS, type LiveCode } from './liveCodes';

/** What is said of a machine's bus. */
export interface BusReport {
  /** Name of the way to the bus, or null when none is set up. */
  adapter: string | null;
  simulated: boolean;
  /** Why nothing is heard, or null while frames come. */
  lost: string | null;
  frames: number;
  senders: number[];
  codes: LiveCode[];
  /** Codes that were there before, once somebody asked for them and was answered. */
  earlier: LiveCode[] | null;
}

/** Follows one way to a bus: whether it is up, what was heard last, and what that comes to. */
export class BusWatch {
  private readonly live = new LiveCodes();
  private up = false;
  private heard = 0;

  /**
   * @param reason why nothing is heard before the way is up
   * @param now milliseconds
   */
  constructor(
    private readonly adapter: string | null,
    private readonly simulated: boolean,
    private reason: string | null,
    private readonly now: () => number,
  ) {}

  onUp(): void {
    this.up = true;
    this.reason = null;
  }

  onLost(why: string): void {
    this.up = false;
    this.reason = why;
  }

  onLine(line: string): void {
    this.heard = this.now();
    this.live.line(line);
  }

  report(): BusReport {
    const { adapter, simulated } = this;
    const quiet = this.heard === 0 ? null : (this.now() - this.heard) / 1000;
    const lost = !this.up || quiet === null || quiet > LOST_SECONDS;
    const why = this.up && quiet !== null ? 'no frame for some seconds' : this.reason;
    const { frames, senders, codes, earlier } = this.live.state();
    return {
      adapter,
      simulated,
      lost: lost ? (why ?? 'no frame yet') : null,
      frames,
      senders,
      codes: lost ? [] : codes,
      earlier,
    };
  }
}

/** Component and failure mode of each code, active and earlier: a change of them is told at once. */
export function codesKey({ lost, codes, earlier }: Pick<BusReport, 'lost' | 'codes' | 'earlier'>): string {
  const names = (list: readonly LiveCode[]) =>
    list.map(({ component, failureMode }) => [component, failureMode]);
  return JSON.stringify([lost, names(codes), earlier && names(earlier)]);
}
