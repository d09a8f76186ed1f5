import type { Entry } from '@/core/job/entries';
import type { WaitingEntry } from './waitingStore';

/**
 * Pictures that were taken up on this page. An entry names its picture by a stand-in until the server has it, and a screen
 * that is open meanwhile goes on using the stand-in: here both lead to the picture and to its hash.
 */
export class KeptPictures {
  private readonly hashes = new Map<string, string>();
  private readonly blobs = new Map<string, Blob>();

  /** The server has the picture of a row: it goes by its hash from now on. */
  sent({ entry, picture }: WaitingEntry, hash: string): void {
    if (entry.type !== 'photo' || entry.body.photo === hash) return;
    this.hashes.set(entry.body.photo, hash);
    if (picture) this.blobs.set(hash, picture).set(entry.body.photo, picture);
  }

  /** The entry as the server takes it: a picture that has been sent goes by its hash. */
  named(entry: Entry): Entry {
    const hash = entry.type === 'photo' ? this.hashes.get(entry.body.photo) : undefined;
    return hash ? ({ ...entry, body: { ...entry.body, photo: hash } } as Entry) : entry;
  }

  /** Every picture that can be shown from here, those of `waiting` too, by stand-in and by hash. */
  shown(waiting: Iterable<WaitingEntry>): ReadonlyMap<string, Blob> {
    const all = new Map(this.blobs);
    for (const { entry, picture } of waiting)
      if (picture && entry.type === 'photo') all.set(entry.body.photo, picture);
    return all;
  }
}
