import { readPicture, type PictureTask } from './pictureTask';

/** One picture in a thread of its own. */
export default function picture(task: PictureTask) {
  return readPicture(task);
}
