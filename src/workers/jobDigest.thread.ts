import { standBack } from './lowPriority';
import { makeJobDigest, type DigestTask } from './jobDigest';

standBack();

/** One digest in a thread of its own: a page is never kept waiting by another job's arithmetic. */
export default function digest(task: DigestTask) {
  return makeJobDigest(task);
}
