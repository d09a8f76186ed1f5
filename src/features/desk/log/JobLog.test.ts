import fc from 'fast-check';
import type { Entry } from '@/core/job/entries';
import { JobLog, type LogTransport } from './JobLog';
import type { SentEntry } from './protocol';
import type { Channel, WaitingEntry, WaitingStore } from './waitingStore';

/** A server that keeps a log, numbers it, and can be away, refuse, or die after keeping and before answering. */
class Server {
  readonly log: SentEntry[] = [];
  away = false;
  /** Keeps what it is sent and dies before it can say so. */
  dieAfter = false;
  /** Who is signed in on the device; nobody's name: whoever writes. */
  person: string | null = null;
  refuse = (_entry: Entry): string | null => null;
  readonly pictures: Blob[] = [];
  private readonly lines = new Set<(entries: SentEntry[]) => void>();

  transport(): LogTransport {
    return {
      send: async (entries) => {
        await Promise.resolve();
        if (this.away) throw new Error('away');
        if (entries.some((entry) => this.person !== null && entry.person !== this.person)) return 'signedOut';
        const results = entries.map((entry) => {
          const there = this.log.find((one) => one.entry.id === entry.id);
          if (there) return { id: entry.id, state: 'known' as const, number: there.number };
          const message = this.refuse(entry);
          if (message) return { id: entry.id, state: 'refused' as const, code: 'bad-input', message };
          const { against: _against, ...kept } = entry;
          const number = this.log.length + 1;
          this.log.push({ number, entry: kept as Entry, receivedAt: '2026-02-04T08:00:00.000Z', skewMs: 0 });
          return { id: entry.id, state: 'added' as const, number };
        });
        this.tell();
        if (this.dieAfter) throw new Error('died');
        return { added: results.length, results };
      },
      upload: async (picture) => {
        await Promise.resolve();
        if (this.away) throw new Error('away');
        this.pictures.push(picture);
        return { hash: 'f'.repeat(64) };
      },
      follow: (after, on) => {
        const line = (entries: SentEntry[]) => on.entries(entries.filter(({ number }) => number > after()));
        this.lines.add(line);
        return () => this.lines.delete(line);
      },
    };
  }

  tell(): void {
    if (!this.away) for (const line of this.lines) line([...this.log]);
  }
}

/** The browser's database and the line between its tabs. */
class Browser {
  readonly rows = new Map<string, WaitingEntry>();
  full = false;
  private readonly listeners = new Set<(message: Channel) => void>();
  private sender: Promise<void> | null = null;

  store(): WaitingStore {
    let own: ((message: Channel) => void) | null = null;
    return {
      load: async () => {
        await Promise.resolve();
        return [...this.rows.values()];
      },
      put: async (row) => {
        await Promise.resolve();
        if (this.full) throw new Error('quota');
        this.rows.set(row.entry.id, row);
      },
      remove: async (ids) => {
        await Promise.resolve();
        for (const id of ids) this.rows.delete(id);
      },
      tell: (message) => {
        for (const listener of this.listeners) if (listener !== own) queueMicrotask(() => listener(message));
      },
      follow: (listener) => {
        own = listener;
        this.listeners.add(listener);
        return () => this.listeners.delete(listener);
      },
    };
  }

  /** One sender at a time, as Web Locks give it. */
  readonly alone = async (work: () => Promise<void>): Promise<void> => {
    if (this.sender) return;
    this.sender = work();
    await this.sender.finally(() => (this.sender = null));
  };
}

let ids = 0;
const timers: (() => void)[] = [];
const runTimers = () => {
  for (const work of timers.splice(0)) work();
};
function openTab(server: Server, browser: Browser, person = 'Tove', skewMs = 0): JobLog {
  const log = new JobLog([], person, browser.store(), server.transport(), {
    now: () => new Date(Date.UTC(2026, 1, 4, 8) + skewMs),
    newId: () => `019a0000-0000-7000-8000-${String(++ids).padStart(12, '0')}`,
    random: () => 0.5,
    setTimer: (work) => {
      timers.push(work);
      return () => {
        const at = timers.indexOf(work);
        if (at >= 0) timers.splice(at, 1);
      };
    },
    alone: browser.alone,
  });
  stops.set(log, log.start());
  return log;
}
/** Closes a tab, as a reload does. */
const closeTab = (log: JobLog) => stops.get(log)!();
const stops = new Map<JobLog, () => void>();
/** Lets everything that is under way come to rest, retries included. */
async function rest(rounds = 12): Promise<void> {
  for (let round = 0; round < rounds; round++) {
    for (let tick = 0; tick < 20; tick++) await Promise.resolve();
    runTimers();
  }
}
const said = (words: string) => ({ type: 'complaint', body: { words } }) as const;
const words = (entries: readonly Entry[]) =>
  entries.map((entry) => (entry.type === 'complaint' ? entry.body.words : entry.type));

afterEach(() => timers.splice(0));

describe('a job’s log in the browser', () => {
  it('counts what is written at once and has it confirmed once', async () => {
    const [server, browser] = [new Server(), new Browser()];
    const log = openTab(server, browser);
    log.write(said('one'));
    expect(log.view().state.complaint).toBe('one');
    expect(log.view().waiting).toHaveLength(1);
    await rest();
    expect(words(server.log.map(({ entry }) => entry))).toEqual(['one']);
    expect(log.view().waiting).toEqual([]);
    expect(browser.rows.size).toBe(0);
  });

  it('keeps a queue of any length while the server is away, and sends it in order', async () => {
    const [server, browser] = [new Server(), new Browser()];
    server.away = true;
    const log = openTab(server, browser);
    for (let n = 0; n < 450; n++) log.write(said(`w${n}`));
    await rest(3);
    expect(log.view()).toMatchObject({ online: false });
    expect(browser.rows.size).toBe(450);
    server.away = false;
    await rest();
    expect(words(server.log.map(({ entry }) => entry))).toEqual(
      Array.from({ length: 450 }, (_one, n) => `w${n}`),
    );
    expect(log.view().online).toBe(true);
  });

  it('a refused entry stands aside with its reason; the others go on', async () => {
    const [server, browser] = [new Server(), new Browser()];
    server.refuse = (entry) => (words([entry])[0] === 'bad' ? 'words: type it again' : null);
    const log = openTab(server, browser);
    for (const one of ['a', 'bad', 'b']) log.write(said(one));
    await rest();
    expect(words(server.log.map(({ entry }) => entry))).toEqual(['a', 'b']);
    const [aside] = log.view().aside;
    expect(aside).toMatchObject({ refused: { message: 'words: type it again' } });
    expect(words(log.view().entries)).toEqual(['a', 'b']);
    // It outlives the page, is mended under an id of its own, or let go.
    const again = openTab(server, browser);
    await rest();
    expect(again.view().aside).toHaveLength(1);
    again.mend(aside!.entry.id, { words: 'good' });
    await rest();
    expect(words(server.log.map(({ entry }) => entry))).toEqual(['a', 'b', 'good']);
    expect(again.view().aside).toEqual([]);
    expect(browser.rows.size).toBe(0);
  });

  it('what was written waits while somebody else is signed in beside it, and is sent when its writer is again', async () => {
    const [server, browser] = [new Server(), new Browser()];
    const log = openTab(server, browser);
    server.person = 'Rasmus';
    log.write(said('one'));
    await rest();
    // Others' entries go on arriving over the line of who is signed in.
    openTab(server, new Browser(), 'Rasmus').write(said('theirs'));
    await rest();
    expect(log.view()).toMatchObject({ signedOut: true, aside: [], online: true });
    expect(words(log.view().waiting)).toEqual(['one']);
    expect(words(log.view().entries)).toEqual(['theirs', 'one']);
    server.person = null;
    await rest();
    expect(log.view()).toMatchObject({ signedOut: false, waiting: [] });
    expect(words(server.log.map(({ entry }) => entry))).toEqual(['theirs', 'one']);
  });

  it('two tabs that are offline together lose nothing of each other', async () => {
    const [server, browser] = [new Server(), new Browser()];
    server.away = true;
    const [one, two] = [openTab(server, browser), openTab(server, browser)];
    for (let n = 0; n < 5; n++) {
      one.write(said(`one ${n}`));
      two.write(said(`two ${n}`));
      await rest(1);
    }
    expect(browser.rows.size).toBe(10);
    server.away = false;
    await rest();
    expect(new Set(words(server.log.map(({ entry }) => entry))).size).toBe(10);
    for (const tab of [one, two])
      expect(words(tab.view().entries)).toEqual(words(server.log.map(({ entry }) => entry)));
  });

  it('a browser that cannot keep says so, and what was written still gets there', async () => {
    const [server, browser] = [new Server(), new Browser()];
    server.away = true;
    browser.full = true;
    const log = openTab(server, browser);
    log.write(said('full'));
    await rest(2);
    expect(log.view()).toMatchObject({ unkept: true });
    server.away = false;
    await rest();
    expect(words(server.log.map(({ entry }) => entry))).toEqual(['full']);
    expect(log.view()).toMatchObject({ unkept: false, waiting: [] });
  });

  it('half a character never leaves the page', async () => {
    const [server, browser] = [new Server(), new Browser()];
    const log = openTab(server, browser);
    log.write(said('half \ud83d'));
    await rest();
    expect(words(server.log.map(({ entry }) => entry))).toEqual(['half \ufffd']);
  });

  it('a picture is sent before its entry, and words put to it meanwhile name it as the server does', async () => {
    const [server, browser] = [new Server(), new Browser()];
    server.away = true;
    const log = openTab(server, browser);
    const body = { photo: '0'.repeat(64), caption: '', marks: [] };
    const photo = log.write({ type: 'photo', body }, new Blob(['x']));
    expect(log.view().pictures.get(body.photo)).toBeInstanceOf(Blob);
    log.write({ type: 'photo', supersedes: photo.id, body: { ...body, caption: 'plug' } });
    await rest(2);
    server.away = false;
    await rest();
    expect(server.pictures).toHaveLength(1);
    expect(server.log.map(({ entry }) => entry.body)).toEqual([
      { ...body, photo: 'f'.repeat(64) },
      { ...body, photo: 'f'.repeat(64), caption: 'plug' },
    ]);
  });

  it('a picture that is being looked at stays when it is sent, by its stand-in and by its name', async () => {
    const [server, browser] = [new Server(), new Browser()];
    const log = openTab(server, browser);
    const standIn = '0'.repeat(64);
    const picture = new Blob(['x']);
    const photo = log.write({ type: 'photo', body: { photo: standIn, caption: '', marks: [] } }, picture);
    await rest();
    expect(log.view().waiting).toEqual([]);
    const { pictures } = log.view();
    expect([pictures.get(standIn), pictures.get('f'.repeat(64))]).toEqual([picture, picture]);
    const body = { photo: standIn, caption: 'plug', marks: [] };
    log.write({ type: 'photo', supersedes: photo.id, body });
    await rest();
    expect(server.log[1]!.entry.body).toEqual({ ...body, photo: 'f'.repeat(64) });
  });

  it('words put to a picture in a second tab name it as the server does, whichever tab sent it', async () => {
    const [server, browser] = [new Server(), new Browser()];
    server.away = true;
    const [first, second] = [openTab(server, browser), openTab(server, browser)];
    const body = { photo: '0'.repeat(64), caption: '', marks: [] };
    const photo = first.write({ type: 'photo', body }, new Blob(['x']));
    await rest(3);
    expect(second.view().state.photos).toHaveLength(1);
    server.away = false;
    await rest();
    second.write({ type: 'photo', supersedes: photo.id, body: { ...body, caption: 'plug' } });
    await rest();
    expect(server.log.map(({ entry }) => entry.body)).toEqual([
      { ...body, photo: 'f'.repeat(64) },
      { ...body, photo: 'f'.repeat(64), caption: 'plug' },
    ]);
    expect(first.view().state.photos[0]!.body.caption).toBe('plug');
  });

  it('what needs the newest state says which it was written against, its own that wait included', async () => {
    const [server, browser] = [new Server(), new Browser()];
    const log = openTab(server, browser);
    log.write(said('a'));
    await rest();
    server.away = true;
    const waiting = log.write(said('b'));
    const signed = log.write({ type: 'madeSafe', body: { points: [] } });
    expect(signed.against).toEqual({ number: 1, own: [waiting.id] });
    expect(waiting.against).toBeUndefined();
  });

  it('a page nobody looks at does not retry, and one that is looked at again does at once', async () => {
    const [server, browser] = [new Server(), new Browser()];
    server.away = true;
    const log = openTab(server, browser);
    log.setAway(true);
    log.write(said('later'));
    await rest(3);
    expect(timers).toEqual([]);
    server.away = false;
    log.setAway(false);
    await rest(1);
    expect(words(server.log.map(({ entry }) => entry))).toEqual(['later']);
  });
});

describe('generated interleavings', () => {
  type Step = 'tab1' | 'tab2' | 'tablet' | 'away' | 'back' | 'die' | 'live' | 'reload1' | 'reload2' | 'rest';
  const step = fc.constantFrom<Step>(
    'tab1',
    'tab2',
    'tablet',
    'away',
    'back',
    'die',
    'live',
    'reload1',
    'reload2',
    'rest',
  );

  it('two tabs, two devices, clocks that differ and a server that dies at any point end with every entry once on every side', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 5, maxLength: 60 }), async (steps) => {
        timers.splice(0);
        const [server, laptop, tablet] = [new Server(), new Browser(), new Browser()];
        const tabs = [
          openTab(server, laptop),
          openTab(server, laptop),
          openTab(server, tablet, 'Ilse', 3_600_000),
        ];
        const written: string[] = [];
        const write = (tab: number) => written.push(tabs[tab]!.write(said(String(written.length))).id);
        for (const one of steps) {
          if (one === 'tab1') write(0);
          else if (one === 'tab2') write(1);
          else if (one === 'tablet') write(2);
          else if (one === 'away') server.away = true;
          else if (one === 'back') server.away = false;
          else if (one === 'die') server.dieAfter = true;
          else if (one === 'live') server.dieAfter = false;
          else if (one === 'rest') await rest(1);
          else {
            // What reached the browser's database outlives the page.
            await rest(1);
            const at = one === 'reload1' ? 0 : 1;
            closeTab(tabs[at]!);
            tabs[at] = openTab(server, laptop);
          }
        }
        server.away = false;
        server.dieAfter = false;
        await rest();
        server.tell();
        await rest(2);
        expect(server.log.map(({ entry }) => entry.id).toSorted()).toEqual(written.toSorted());
        const order = server.log.map(({ entry }) => entry.id);
        for (const tab of tabs) {
          expect(tab.view().entries.map(({ id }) => id)).toEqual(order);
          expect(tab.view().waiting).toEqual([]);
        }
        expect([laptop.rows.size, tablet.rows.size]).toEqual([0, 0]);
      }),
      { numRuns: 200, seed: 12 },
    );
  });
});
