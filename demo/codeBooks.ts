import { bookRowSchema, type BookRow } from '../src/core/codes/bookRow';

const line = (given: Partial<BookRow>): BookRow => bookRowSchema.parse(given);

/** Lines of a groomer's code book: the controller's own numbers, and the same on the bus. */
const groomer: readonly BookRow[] = [
  line({
    system: 'maker',
    code: '14',
    text: 'Controller output 14, tiller float',
    function: 'Tiller float valve',
    part: 'DM2',
    sheet: 'Sheet 7, C4',
    note: 'The output is tried only while the float button is lit.',
  }),
  line({
    system: 'J1939',
    code: '520214',
    text: 'Controller output 14, tiller float',
    function: 'Tiller float valve',
    part: 'DM2',
    sheet: 'Sheet 7, C4',
  }),
  ...(
    [
      [21, 'lift', 'DM5', 'B5'],
      [22, 'lower', 'DM6', 'C5'],
    ] as const
  ).flatMap(([output, way, part, square]) =>
    (
      [
        ['maker', String(output)],
        ['J1939', String(520_200 + output)],
      ] as const
    ).map(([system, code]) =>
      line({
        system,
        code,
        text: `Controller output ${output}, tiller ${way}`,
        function: 'Tiller lift and lower',
        part,
        sheet: `Sheet 9, ${square}`,
      }),
    ),
  ),
  line({
    system: 'J1939',
    code: '520330',
    mode: '31',
    text: 'Cab door switch not seen since start',
    sheet: 'Sheet 2, A1',
    note: 'Stays until the door was opened once.',
  }),
  line({ system: 'blink', code: '2-3', means: 5, text: 'Beacon lamp output open', sheet: 'Sheet 3, B2' }),
];

/** By machine code. */
export const CODE_BOOKS: Readonly<Record<string, readonly BookRow[]>> = {
  'G-1': groomer,
  'G-2': groomer,
  'G-4': groomer,
  'G-7': groomer,
};
