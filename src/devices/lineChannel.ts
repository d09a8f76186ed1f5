/** Lines of text to a device and back. */
export interface LineChannel {
  send(line: string): void;
  /** Gives each line that comes in, without its end, and why the channel was lost. */
  listen(on: { line: (line: string) => void; lost: (reason: string) => void }): void;
  close(): void;
}
