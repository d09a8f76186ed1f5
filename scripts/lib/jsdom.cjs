/** What every browser has and jsdom has not: nothing is laid out, scrolled or captured in a test of screens. */
class NoObserver {
  observe() {}
  unobserve() {}
  disconnect() {}
}
globalThis.ResizeObserver ??= NoObserver;
globalThis.IntersectionObserver ??= NoObserver;
globalThis.matchMedia ??= (media) => ({
  media,
  matches: false,
  addEventListener() {},
  removeEventListener() {},
});
globalThis.scrollTo = () => undefined;
globalThis.Element.prototype.scrollIntoView ??= () => undefined;
globalThis.Element.prototype.setPointerCapture ??= () => undefined;
globalThis.Element.prototype.hasPointerCapture ??= () => false;
// A page that is not as it should be is told in a line, not printed whole.
process.env.DEBUG_PRINT_LIMIT ??= '0';
// Two of a list under one key leave one behind where the list is drawn anew: that is no warning.
const said = console.error;
console.error = (...words) => {
  if (String(words[0]).includes('same key')) throw new Error(`two of a list have the key ${words[1]}`);
  said(...words);
};
