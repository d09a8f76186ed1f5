import type { LogSummary } from '@/core/codes/codeLog';
import { LogReader } from '@/formats/logReader';

const PIECE_BYTES = 1 << 20;

/**
 * Reads a log of any size, a piece at a time, so that memory stays bounded. `onProgress` gets the share that is read,
 * 0 to 1. Cancelled by ending the worker.
 */
export async function readLogFile(file: Blob, onProgress: (share: number) => void): Promise<LogSummary> {
  const reader = new LogReader();
  const decoder = new TextDecoder();
  for (let at = 0; at < file.size; at += PIECE_BYTES) {
    const piece = await file.slice(at, at + PIECE_BYTES).arrayBuffer();
    reader.push(decoder.decode(piece, { stream: true }));
    onProgress(Math.min((at + PIECE_BYTES) / file.size, 1));
  }
  reader.push(decoder.decode());
  return reader.end();
}
