import { standBack } from './lowPriority';
import { readPicture, type PictureTask } from './pictureTask';

standBack();

/** One picture in a thread of its own. */
export default function picture(task: PictureTask) {
  return readPicture(task);
}
