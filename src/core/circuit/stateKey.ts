/** Key of a combination of device states, two of them in each character: equal for equal states only. */
export function stateKey(state: Uint8Array): string {
  let key = '';
  for (let at = 0; at < state.length; at += 2)
    key += String.fromCharCode(state[at]! | ((state[at + 1] ?? 0) << 8));
  return key;
}
