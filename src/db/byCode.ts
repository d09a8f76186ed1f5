/** Machines `m` by code as people count: G-2 before G-10. A key of it cannot be kept (MariaDB: the rule may change), it is worked out a row. */
export const BY_CODE = 'NATURAL_SORT_KEY(m.code), m.code';

/** Those behind the machine whose code is bound twice. */
export const BEHIND_CODE = `(${BY_CODE}) > (NATURAL_SORT_KEY(?), ?)`;
