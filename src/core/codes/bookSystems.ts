/** Notations of a book's rows: the found ones, the maker's own pairs, and lamps that blink. */
export const BOOK_SYSTEMS = ['J1939', 'J1587', 'OBD', 'UDS', 'maker', 'blink'] as const;
