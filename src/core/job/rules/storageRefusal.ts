/** Why what keeps the log did not take an entry, whatever the rules say. */
export type StorageRefusal =
  /** Its id is taken by an entry with another content. */
  | { code: 'conflict'; id: string }
  /** It holds something that cannot be stored. */
  | { code: 'storage' };
