import { saveText } from './saveText';

const INKS = [
  'sheet',
  'film',
  'ink',
  'ink2',
  'pencil',
  'pencil-t',
  'copper',
  'copper-ink',
  'verdi',
  'stamp',
  'rule',
  'edge',
];

/** A drawn figure as an SVG file that stands alone: the day's inks and the figure's own type written into it. */
export function saveSvg(figure: SVGSVGElement, name: string): void {
  const copy = figure.cloneNode(true) as SVGSVGElement;
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  for (const element of copy.querySelectorAll('[role],[tabindex],[aria-label]')) {
    for (const gone of ['role', 'tabindex', 'aria-label', 'aria-pressed']) element.removeAttribute(gone);
  }
  const page = getComputedStyle(document.documentElement);
  const inks = INKS.map((ink) => `--${ink}:${page.getPropertyValue(`--${ink}`).trim()}`).join(';');
  const style = document.createElementNS('http://www.w3.org/2000/svg', 'style');
  style.textContent =
    `svg{${inks};background:var(--sheet);color:var(--ink);font-family:'Sofia Sans Semi Condensed',sans-serif}` +
    `text{fill:var(--ink);paint-order:stroke;stroke:var(--sheet);stroke-width:5px;stroke-linejoin:round}` +
    `.point-number{stroke:none}.fig,.fig-bold{font-family:'B612',monospace}.fig-bold{font-weight:700}.focus-box{stroke:none}`;
  copy.prepend(style);
  saveText(name, 'image/svg+xml', new XMLSerializer().serializeToString(copy));
}
