'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import type { Entry } from '@/core/job/entries';
import { orderLog, reduceJob, type JobState } from '@/core/job/reduceJob';

/** Everything of an entry but what the log itself fills in. */
export type Draft = Entry extends infer E
  ? E extends Entry
    ? Omit<E, 'id' | 'at' | 'person'>
    : never
  : never;

export interface JobLog {
  state: JobState;
  /** Every entry known here, oldest first. */
  entries: readonly Entry[];
  /** Entries written here that the server has not confirmed. */
  waiting: Entry[];
  /** Set when the server refused an entry for good. */
  refused: string | null;
  online: boolean;
  write: (draft: Draft) => Entry;
}

const RETRY_MS = 2500;
const LISTEN_AGAIN_MS = 1500;

/**
 * A job's log in the browser. What is written counts at once, is kept in local storage until the server has it, and
 * is sent again until it does; others' entries come as server-sent events.
 */
export function useJobLog(
  jobNumber: number,
  initial: readonly Entry[],
  lastSeq: number,
  person: string,
): JobLog {
  const storageKey = `spiraxis-waiting-${jobNumber}`;
  const [known, setKnown] = useState<readonly Entry[]>(initial);
  const [waiting, setWaiting] = useState<Entry[]>([]);
  const [refused, setRefused] = useState<string | null>(null);
  const [online, setOnline] = useState(true);
  const seq = useRef(lastSeq);
  // What waits is kept here and in local storage the moment it is written; the state only shows it.
  const queue = useRef<Entry[]>([]);
  const setQueue = useCallback(
    (next: Entry[]) => {
      queue.current = next;
      keepWaiting(storageKey, next);
      setWaiting(next);
    },
    [storageKey],
  );
  const sending = useRef(false);
  // What an earlier visit could not send is picked up again.
  useEffect(() => {
    const kept = readKept(storageKey);
    const known = new Set(queue.current.map(({ id }) => id));
    if (kept.length > 0) setQueue([...kept.filter(({ id }) => !known.has(id)), ...queue.current]);
  }, [storageKey, setQueue]);

  const send = useCallback(async () => {
    const entries = queue.current;
    if (sending.current || entries.length === 0) return;
    sending.current = true;
    try {
      const response = await fetch(`/api/jobs/${jobNumber}/entries`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ entries }),
      });
      if (response.ok) {
        setOnline(true);
        setRefused(null);
        const sent = new Set(entries.map(({ id }) => id));
        setKnown((now) => [...now, ...entries.filter(({ id }) => !now.some((one) => one.id === id))]);
        setQueue(queue.current.filter(({ id }) => !sent.has(id)));
      } else if (response.status === 400 || response.status === 409 || response.status === 413) {
        const { message } = (await response.json()) as { message?: string };
        setRefused(message ?? `The server refused the entry (${response.status}).`);
      } else setOnline(false);
    } catch {
      // No network or no server: the entries stay in the browser and are sent when it is back.
      setOnline(false);
    } finally {
      sending.current = false;
    }
  }, [jobNumber, setQueue]);

  useEffect(() => {
    if (waiting.length === 0 || refused) return;
    void send();
    const timer = setInterval(() => void send(), RETRY_MS);
    return () => clearInterval(timer);
  }, [waiting, send, refused]);

  useEffect(() => {
    let events: EventSource | null = null;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const take = ({ data }: MessageEvent<string>) => {
      setOnline(true);
      // Checked by the server when they were written; the schema need not travel to the browser.
      const entries = JSON.parse(data) as { seq: number; entry: Entry }[];
      if (entries.length === 0) return;
      seq.current = Math.max(seq.current, ...entries.map((one) => one.seq));
      const fresh = entries.map(({ entry }) => entry);
      setKnown((now) => {
        const ids = new Set(now.map(({ id }) => id));
        const added = fresh.filter(({ id }) => !ids.has(id));
        return added.length > 0 ? [...now, ...added] : now;
      });
    };
    const close = () => {
      clearTimeout(timer);
      events?.close();
      events = null;
    };
    const listen = () => {
      close();
      // A browser keeps only a few lines to one server: a page nobody looks at holds none.
      if (document.hidden) return;
      events = new EventSource(`/api/jobs/${jobNumber}/events?after=${seq.current}`);
      events.onmessage = take;
      events.onerror = () => {
        setOnline(false);
        close();
        timer = setTimeout(listen, LISTEN_AGAIN_MS);
      };
    };
    listen();
    document.addEventListener('visibilitychange', listen);
    return () => {
      document.removeEventListener('visibilitychange', listen);
      close();
    };
  }, [jobNumber]);

  const write = useCallback(
    (draft: Draft): Entry => {
      const entry = { ...draft, id: uuidv7(), at: new Date().toISOString(), person } as Entry;
      setQueue([...queue.current, entry]);
      return entry;
    },
    [person, setQueue],
  );

  const entries = useMemo(() => orderLog([...known, ...waiting]).ordered, [known, waiting]);
  const state = useMemo(() => reduceJob(entries), [entries]);
  return { state, entries, waiting, refused, online, write };
}

function readKept(key: string): Entry[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key) ?? '[]');
    // The server checks every entry when it arrives; here it need only be one of ours.
    return Array.isArray(kept) ? kept.filter(isEntry) : [];
  } catch {
    // Damaged storage holds nothing that could be sent.
    return [];
  }
}

function isEntry(value: unknown): value is Entry {
  return typeof value === 'object' && value !== null && 'id' in value && 'type' in value && 'body' in value;
}

function keepWaiting(key: string, entries: readonly Entry[]): void {
  if (entries.length === 0) localStorage.removeItem(key);
  else localStorage.setItem(key, JSON.stringify(entries));
}
