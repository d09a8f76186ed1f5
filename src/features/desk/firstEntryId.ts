import { v5 as uuidv5 } from 'uuid';

/** Id of an entry that a job begins with: of the same job the same, whoever makes it and however often. */
export function firstEntryId(jobId: string, at: number): string {
  return uuidv5(String(at), jobId);
}
