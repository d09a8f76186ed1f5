import 'server-only';
import { readSoundTraces, type StoredTrace } from '@/db/traces';

/** Traces that earlier jobs of the same function left, taken when the machine had been mended. */
export async function soundTraces(
  jobId: string,
): Promise<{ traces: (Omit<StoredTrace, 'at'> & { at: string })[] }> {
  const found = await readSoundTraces(jobId);
  return { traces: found.map((one) => ({ ...one, at: one.at.toISOString() })) };
}
