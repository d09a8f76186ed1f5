import { standBack } from './lowPriority';
import { readArchive } from './archiveTask';

standBack();

/** One archive in a thread of its own: whatever it does to itself, nobody's reading waits for it. */
export default function archive(bytes: Uint8Array) {
  return readArchive(bytes);
}
