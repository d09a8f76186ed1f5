import { ENTRY_FORM } from '@/core/job/upgradeEntry';
import { askServer, NotAnswered } from '@/features/askServer';
import { LOGS, openKept } from '@/features/offline/caches';
import { PIECE, type SentEntry } from './protocol';

/** Over a slow radio link a piece takes its time. */
const PATIENCE_MS = 60_000;
const FAILED = 500;

/**
 * Reads a job's whole log in pieces. What stands in a log never changes: a full piece is asked for once and kept; without a
 * server the last piece is the one that came last. Rejects with {@link NotAnswered} where a piece neither comes nor is kept.
 *
 * @param came told how many entries are here, after each piece
 */
export async function readLongLog(
  { number, id }: { number: number; id: string },
  came: (entries: number) => void = () => undefined,
  signal?: AbortSignal,
): Promise<SentEntry[]> {
  const kept = await openKept(LOGS);
  const log: SentEntry[] = [];
  for (;;) {
    const piece = await pieceAfter(
      // Kept by its id as well: a shed that was begun anew counts its jobs anew.
      `/api/jobs/${number}/entries?after=${log.length}&form=${ENTRY_FORM}&job=${id}`,
    );
    log.push(...piece);
    came(log.length);
    if (piece.length < PIECE) return log;
  }

  async function pieceAfter(path: string): Promise<SentEntry[]> {
    const before = (await (await kept?.match(path))?.json()) as SentEntry[] | undefined;
    if (before?.length === PIECE) return before;
    try {
      const piece = await askServer<SentEntry[]>(path, { patienceMs: PATIENCE_MS, signal: signal ?? null });
      // A device that is full keeps what it has.
      await kept?.put(path, Response.json(piece)).catch(() => undefined);
      return piece;
    } catch (error) {
      const away = error instanceof NotAnswered && (error.status === 0 || error.status >= FAILED);
      if (before && away) return before;
      throw error;
    }
  }
}
