/** Hands a text to the browser as a file to keep. */
export function saveText(name: string, kind: string, text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: `${kind};charset=utf-8` }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
