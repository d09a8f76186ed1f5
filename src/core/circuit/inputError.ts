/** Something a person gave that cannot be used. The message names the field, the value and the mend. */
export class InputError extends Error {
  readonly code = 'bad-input';
  constructor(
    readonly field: string,
    readonly problem: string,
  ) {
    super(`${field}: ${problem}`);
    this.name = 'InputError';
  }
}
