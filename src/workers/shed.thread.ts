import { standBack } from './lowPriority';
import { shedTask, type ShedTask } from './shedTask';

standBack();

/** The shed's past in a thread of its own: a year of jobs keeps no page waiting. */
export default function shed(task: ShedTask) {
  return shedTask(task);
}
