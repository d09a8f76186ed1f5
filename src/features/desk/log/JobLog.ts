import type { Entry } from '@/core/job/entries';
import { needsNewest } from '@/core/job/rules/newestState';
import { samePerson } from '@/core/people/roles';
import { reduceJob, type JobState } from '@/core/job/reduceJob';
import { KeptPictures } from './KeptPictures';
import { MOST_IN_BATCH, type SendAnswer, type SentEntry } from './protocol';
import type { Channel, WaitingEntry, WaitingStore } from './waitingStore';

/** Everything of an entry but what the log itself fills in. */
export type Draft = Entry extends infer E
  ? E extends Entry
    ? Omit<E, 'id' | 'at' | 'person' | 'against'>
    : never
  : never;

/** What a job's screens see of its log. A new object whenever something changed. */
export interface LogView {
  state: JobState;
  /** Every entry known here: in order of arrival, those that wait behind them. */
  entries: readonly Entry[];
  /** By id, when the server got it and how far its writer's clock was off. */
  arrivals: ReadonlyMap<string, SentEntry>;
  /** Written here and not confirmed by the server yet. */
  waiting: readonly Entry[];
  /** Written here by somebody who is not signed in now, and not sent before they are again; how many, by name. */
  others: ReadonlyMap<string, number>;
  /** Whoever writes here is signed in no more: nothing is sent before they are. */
  signedOut: boolean;
  /** Refused by the server, each with its reason; they count for nothing until they are mended or dropped. */
  aside: readonly WaitingEntry[];
  online: boolean;
  /** This browser cannot keep entries: they live on this page alone until the server has them. */
  unkept: boolean;
  /** Pictures that were taken up or found waiting here, by the stand-in for their hash and, once sent, by their hash. */
  pictures: ReadonlyMap<string, Blob>;
}

/** The way to the server. */
export interface LogTransport {
  /** Throws when the server is away; gives null when it answered but could not take anything now, or that whoever wrote is signed in no more. */
  send(entries: readonly Entry[]): Promise<SendAnswer | 'signedOut' | null>;
  /** Uploads a picture kept here; its content hash, or why the server will never take it. */
  upload(picture: Blob): Promise<{ hash: string } | { trouble: string }>;
  /** Follows the job from a number on; calls back with what is new and when the line breaks. Gives the way to stop. */
  follow(
    after: () => number,
    on: { entries: (entries: SentEntry[]) => void; lost: () => void; signedOut: () => void },
  ): () => void;
}

/** What of the browser a log needs, so that a test can stand in for it. */
export interface LogSurroundings {
  now: () => Date;
  newId: () => string;
  /** Between 0 and 1. */
  random: () => number;
  setTimer: (work: () => void, milliseconds: number) => () => void;
  /** Runs `work` while this tab alone holds the right to send for the job; skips it when another tab has it. */
  alone: (work: () => Promise<void>) => Promise<void>;
}

const FIRST_RETRY_MS = 1000;
const LONGEST_RETRY_MS = 30_000;

/**
 * A job's log in a browser. What is written counts at once, is kept until the server has it, and is sent again until it
 * does. Tabs of one browser share what waits: each entry is a row of its own that no other tab overwrites.
 */
export class JobLog {
  private readonly known = new Map<number, SentEntry>();
  private readonly numbers = new Map<string, number>();
  /** Every number up to this one is known here. */
  private upTo = 0;
  private rows = new Map<string, WaitingEntry>();
  private readonly unkeptIds = new Set<string>();
  /** Entries that wait no longer: confirmed, mended or let go. */
  private readonly gone = new Set<string>();
  private readonly pictures = new KeptPictures();
  private online = true;
  private signedOut = false;
  private away = false;
  private attempts = 0;
  private sending = false;
  private stopTimer: (() => void) | null = null;
  private readonly stops: (() => void)[] = [];
  private readonly listeners = new Set<() => void>();
  /** What the screens see; worked out when it is looked at, not at every change. */
  private shown: LogView | null = null;

  constructor(
    initial: readonly SentEntry[],
    private readonly person: string,
    private readonly store: WaitingStore,
    private readonly transport: LogTransport,
    private readonly surroundings: LogSurroundings,
  ) {
    this.learn(initial);
  }

  /** Takes up what earlier visits and other tabs left, listens to the server, and sends. Gives the way to stop. */
  start(): () => void {
    this.stops.push(
      this.store.follow((message) => this.hear(message)),
      this.transport.follow(() => this.upTo, {
        entries: (entries) => {
          const news = entries.length > 0 || !this.online || this.signedOut;
          this.online = true;
          if (!news) return;
          this.learn(entries);
          const waits = this.own().length > 0;
          // The line may be somebody else's, who signed in beside this page: what waits is sent, and the answer tells.
          if (!waits) this.signedOut = false;
          this.changed();
          // The line is back: so is the server.
          if (waits && !this.sending) void this.send();
        },
        lost: () => {
          this.online = false;
          this.changed();
        },
        signedOut: () => {
          this.online = true;
          this.signedOut = true;
          this.changed();
        },
      }),
    );
    void this.reload().then(() => this.send());
    return () => {
      for (const stop of this.stops.splice(0)) stop();
      this.stopTimer?.();
    };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly view = (): LogView => (this.shown ??= this.look());

  /** Adds an entry. It counts from now on, wherever the server is. A picture that goes with it is sent before it. */
  write(draft: Draft, picture?: Blob): Entry {
    const { newId, now } = this.surroundings;
    const bare = { ...draft, id: newId(), at: now().toISOString(), person: this.person } as Entry;
    // Half a character is no text to any server: what cannot be kept is not written.
    const entry = this.pictures.named(
      wellFormed(needsNewest(bare) ? { ...bare, against: this.seen() } : bare),
    );
    this.keep({ entry, order: this.nextOrder(), ...(picture ? { picture } : {}) });
    void this.send();
    return entry;
  }

  /** What is known here: every entry up to a number, and single ones behind it. */
  private seen(): NonNullable<Entry['against']> {
    const behind = [...this.known.values()].filter(({ number }) => number > this.upTo);
    return {
      number: this.upTo,
      own: [...behind, ...this.own()].map(({ entry }) => entry.id),
    };
  }

  /** Writes a refused entry again as the job stands now, with changes where there are any. */
  mend(id: string, body?: object): void {
    const row = this.rows.get(id);
    if (!row?.refused) return;
    const { id: _id, at: _at, person: _person, against: _against, witness: _used, ...draft } = row.entry;
    this.write({ ...draft, ...(body ? { body } : {}) } as Draft, row.picture);
    this.drop(id);
  }

  /** Lets a refused entry go. */
  drop(id: string): void {
    if (!this.rows.get(id)?.refused) return;
    this.forget([id]);
    this.changed();
  }

  /** The page is looked at, or not: nobody waits for retries of a page nobody sees. */
  setAway(away: boolean): void {
    this.away = away;
    if (!away) {
      this.attempts = 0;
      void this.reload().then(() => this.send());
    }
  }

  /** Sends what waits, oldest first, a batch at a time, until nothing is left or the server is away. */
  async send(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    this.stopTimer?.();
    this.stopTimer = null;
    let again = false;
    try {
      await this.surroundings.alone(async () => {
        // Another tab may have sent some while this one waited for its turn.
        await this.reload();
        while (this.own().length > 0) {
          if (!(await this.sendBatch())) {
            again = true;
            return;
          }
          this.attempts = 0;
        }
      });
    } finally {
      this.sending = false;
    }
    if (this.own().length > 0) this.sendLater(again);
  }

  private async sendBatch(): Promise<boolean> {
    const rows = this.own().slice(0, MOST_IN_BATCH);
    try {
      const ready: WaitingEntry[] = [];
      for (const { entry } of rows) {
        // Read anew: a picture sent before it may have given it its name.
        const row = this.rows.get(entry.id);
        if (!row) continue;
        // Another tab may have written marks on it by the stand-in.
        const sendable = row.picture
          ? await this.uploaded(row)
          : { ...row, entry: this.pictures.named(row.entry) };
        if (sendable) ready.push(sendable);
      }
      if (ready.length === 0) return true;
      const answer = await this.transport.send(ready.map(({ entry }) => entry));
      if (answer === null || answer === 'signedOut') {
        this.signedOut = answer === 'signedOut';
        this.online = this.signedOut;
        this.changed();
        return false;
      }
      this.online = true;
      this.signedOut = false;
      this.settle(ready, answer);
      return true;
    } catch {
      // No network or no server: the entries stay here and are sent when it is back.
      this.online = false;
      this.changed();
      return false;
    }
  }

  /** The row with its picture on the server, or null where the server will never take it. */
  private async uploaded(row: WaitingEntry): Promise<WaitingEntry | null> {
    const answer = await this.transport.upload(row.picture!);
    if ('trouble' in answer) {
      this.keep({ ...row, refused: { code: 'picture', message: answer.trouble } });
      return null;
    }
    const { picture: _sent, ...rest } = row;
    this.pictures.sent(row, answer.hash);
    const next = { ...rest, entry: this.pictures.named(row.entry) };
    this.keep(next);
    // Words and marks that were added meanwhile go by the stand-in still.
    for (const other of this.waiting()) {
      const named = this.pictures.named(other.entry);
      if (named !== other.entry) this.keep({ ...other, entry: named });
    }
    return next;
  }

  private settle(sent: readonly WaitingEntry[], answer: SendAnswer): void {
    const byId = new Map(sent.map((row) => [row.entry.id, row]));
    const confirmed: SentEntry[] = [];
    for (const result of answer.results) {
      const row = byId.get(result.id);
      if (!row) continue;
      if (result.state === 'refused') {
        this.keep({ ...row, refused: { code: result.code, message: result.message } });
        continue;
      }
      const { against: _against, witness: _witness, ...entry } = row.entry;
      const receivedAt = this.surroundings.now().toISOString();
      confirmed.push({ number: result.number, entry: entry as Entry, receivedAt, skewMs: null });
    }
    this.learn(confirmed);
    this.forget(confirmed.map(({ entry }) => entry.id));
    this.store.tell({ is: 'confirmed', entries: confirmed });
    this.changed();
  }

  private sendLater(failed: boolean): void {
    if (this.away || this.stopTimer) return;
    // Each failure waits twice as long, and never to the beat of other tablets.
    if (failed) this.attempts++;
    const base = Math.min(LONGEST_RETRY_MS, FIRST_RETRY_MS * 2 ** Math.max(0, this.attempts - 1));
    const wait = base * (0.7 + 0.6 * this.surroundings.random());
    this.stopTimer = this.surroundings.setTimer(() => {
      this.stopTimer = null;
      void this.send();
    }, wait);
  }

  private hear(message: Channel): void {
    if (message.is === 'confirmed') {
      this.learn(message.entries);
      this.changed();
    } else void this.reload().then(() => this.send());
  }

  /** What waits in the browser, of this tab and of others, beside what only this page could keep. */
  private async reload(): Promise<void> {
    const kept = await this.store.load();
    const rows = new Map(kept.map((row) => [row.entry.id, row]));
    for (const [id, row] of this.rows) {
      // Written while the rows were read, or never kept: still ours.
      if (!rows.has(id) && (this.unkeptIds.has(id) || this.pending.has(id))) rows.set(id, row);
    }
    for (const id of rows.keys()) {
      // Confirmed, or let go, while the rows were read: it must not come back.
      if (!this.numbers.has(id) && !this.gone.has(id)) continue;
      rows.delete(id);
      void this.store.remove([id]);
    }
    const same =
      rows.size === this.rows.size &&
      [...rows].every(([id, row]) => this.rows.has(id) && this.rows.get(id)!.refused === row.refused);
    this.rows = rows;
    if (!same) this.changed();
  }

  /** Rows on their way into the store. */
  private readonly pending = new Set<string>();

  private keep(row: WaitingEntry): void {
    const { id } = row.entry;
    this.rows.set(id, row);
    this.pending.add(id);
    this.store.put(row).then(
      () => {
        this.pending.delete(id);
        if (this.unkeptIds.delete(id)) this.changed();
        if (this.rows.has(id)) this.store.tell({ is: 'written' });
        // Confirmed while it was being kept: it must not come back.
        else void this.store.remove([id]);
      },
      () => {
        this.pending.delete(id);
        if (this.rows.has(id)) this.unkeptIds.add(id);
        this.changed();
      },
    );
    this.changed();
  }

  private forget(ids: readonly string[]): void {
    for (const id of ids) {
      this.rows.delete(id);
      this.unkeptIds.delete(id);
      this.gone.add(id);
    }
    void this.store.remove(ids);
  }

  private learn(entries: readonly SentEntry[]): void {
    for (const one of entries) {
      this.known.set(one.number, one);
      this.numbers.set(one.entry.id, one.number);
      const row = this.rows.get(one.entry.id);
      if (row && this.rows.delete(one.entry.id)) {
        // Another tab may have sent its picture.
        if (one.entry.type === 'photo') this.pictures.sent(row, one.entry.body.photo);
        this.unkeptIds.delete(one.entry.id);
        void this.store.remove([one.entry.id]);
      }
    }
    while (this.known.has(this.upTo + 1)) this.upTo++;
  }

  private waiting(): WaitingEntry[] {
    return [...this.rows.values()]
      .filter(({ refused }) => !refused)
      .sort((a, b) => a.order - b.order || (a.entry.id < b.entry.id ? -1 : 1));
  }

  /** What waits of who is signed in: nobody sends in somebody else's name. */
  private own(): WaitingEntry[] {
    return this.waiting().filter(({ entry }) => samePerson(entry.person, this.person));
  }

  private nextOrder(): number {
    return Math.max(
      this.surroundings.now().getTime(),
      ...[...this.rows.values()].map(({ order }) => order + 1),
    );
  }

  private look(): LogView {
    const stored = [...this.known.values()].sort((a, b) => a.number - b.number);
    const waiting = this.waiting().map(({ entry }) => entry);
    const entries = [...stored.map(({ entry }) => entry), ...waiting];
    return {
      state: reduceJob(entries),
      entries,
      arrivals: new Map(stored.map((one) => [one.entry.id, one])),
      waiting,
      others: this.ofOthers(),
      signedOut: this.signedOut,
      aside: [...this.rows.values()].filter(
        ({ entry, refused }) => refused && samePerson(entry.person, this.person),
      ),
      online: this.online,
      unkept: this.unkeptIds.size > 0,
      pictures: this.pictures.shown(this.rows.values()),
    };
  }

  private ofOthers(): Map<string, number> {
    const counts = new Map<string, number>();
    for (const { entry } of this.waiting())
      if (!samePerson(entry.person, this.person))
        counts.set(entry.person, (counts.get(entry.person) ?? 0) + 1);
    return counts;
  }

  private changed(): void {
    this.shown = null;
    for (const listener of this.listeners) listener();
  }
}

function wellFormed<T>(value: T): T {
  if (typeof value === 'string') return value.toWellFormed() as T;
  if (Array.isArray(value)) return value.map(wellFormed) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, wellFormed(inner)])) as T;
}
