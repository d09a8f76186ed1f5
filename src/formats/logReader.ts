import { CodeLog, type LogSummary } from '@/core/codes/codeLog';
import { isCodeTable, sightingOf } from './codeTables';
import { readTable } from './table';

/** A line longer than this is no log line; it is cut so that memory stays bounded. */
const LONGEST_LINE = 10_000;

/**
 * Reads a log given piece by piece, of any size: bus text (candump or ASC), or a CSV table of codes, told by its first
 * line. Damaged lines are counted and left out.
 */
export class LogReader {
  private readonly log = new CodeLog();
  private rest = '';
  /** Header of a CSV log; `null` for bus text, `undefined` before the first line. */
  private header: string | null | undefined;

  push(text: string): void {
    const lines = (this.rest + text).split(/\r?\n/);
    this.rest = lines.pop()!.slice(0, LONGEST_LINE);
    this.take(lines);
  }

  /** The summary, once all pieces are in. */
  end(): LogSummary {
    if (this.rest) this.take([this.rest]);
    this.rest = '';
    return this.log.summary();
  }

  private take(lines: string[]): void {
    let from = 0;
    while (this.header === undefined && from < lines.length) {
      const line = lines[from]!;
      if (line.trim() !== '') this.header = isCodeTable(line) ? line : null;
      if (this.header === null) break;
      from++;
    }
    if (typeof this.header === 'string') this.takeRows(lines.slice(from));
    else for (let at = from; at < lines.length; at++) this.log.line(lines[at]!);
  }

  private takeRows(lines: readonly string[]): void {
    if (lines.length === 0) return;
    const table = `${this.header}\n${lines.filter((line) => line.length <= LONGEST_LINE).join('\n')}`;
    for (const row of readTable(table, [], 'keepGoing')) this.log.sighting(sightingOf(row));
  }
}
