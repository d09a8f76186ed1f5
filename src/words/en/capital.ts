/** Words as they begin a sentence. */
export function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}
