/** Reads PDF pages away from the page's own thread. */
import 'pdfjs-dist/build/pdf.worker.min.mjs';
