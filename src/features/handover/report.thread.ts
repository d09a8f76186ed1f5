import { standBack } from '@/workers/lowPriority';
import { reportPdf } from './ReportPdf';
import { makeReport, type ReportTask } from './reportTask';

standBack();

/** A job's report, as words or as a PDF, in a thread of its own. */
export default async function report({ as, task }: { as: 'words' | 'pdf'; task: ReportTask }) {
  const made = makeReport(task);
  return as === 'words' ? made : new Uint8Array(await reportPdf(made));
}
