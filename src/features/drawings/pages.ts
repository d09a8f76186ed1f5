/** Longest side of a page as a picture, px: fine print stays legible. */
const LONGEST_SIDE = 2800;
const MOST_PAGES = 60;

/** The pictures a chosen file holds: itself, or every page of a PDF. `onPage` is told which page is being made. */
export async function pagesOf(
  file: File,
  onPage: (page: number, of: number) => void,
): Promise<{ name: string; picture: Blob }[]> {
  const plain = file.name.replace(/\.\w+$/, '');
  if (file.type !== 'application/pdf' && !/\.pdf$/i.test(file.name)) return [{ name: plain, picture: file }];
  const pdf = await import('pdfjs-dist');
  pdf.GlobalWorkerOptions.workerPort = new Worker(new URL('../../workers/pdf.worker.ts', import.meta.url), {
    type: 'module',
  });
  const document_ = await pdf.getDocument({ data: await file.arrayBuffer(), isEvalSupported: false }).promise;
  const count = Math.min(document_.numPages, MOST_PAGES);
  const pages: { name: string; picture: Blob }[] = [];
  try {
    for (let at = 1; at <= count; at++) {
      onPage(at, count);
      const page = await document_.getPage(at);
      const natural = page.getViewport({ scale: 1 });
      const viewport = page.getViewport({ scale: LONGEST_SIDE / Math.max(natural.width, natural.height) });
      const canvas = document.createElement('canvas');
      [canvas.width, canvas.height] = [Math.round(viewport.width), Math.round(viewport.height)];
      const canvasContext = canvas.getContext('2d');
      if (!canvasContext) throw new Error('this browser cannot draw the page');
      await page.render({ canvasContext, viewport }).promise;
      const picture = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
      if (!picture) throw new Error(`page ${at} could not be made into a picture`);
      pages.push({ name: count === 1 ? plain : `${plain}, page ${at}`, picture });
    }
  } finally {
    await document_.destroy();
  }
  return pages;
}
