'use client';

import { SerwistProvider, useSerwist } from '@serwist/turbopack/react';
import { usePathname } from 'next/navigation';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useWho } from '@/ui/who';
import { begunIn, isBegun, stepAddress } from '../desk/steps';
import { waitingWords } from '@/words/en/offline';
import { HOLD, jobOfPath } from './caches';
import { personHere, rememberPerson } from './personHere';
import { readWaiting, sendWaiting, type Waiting } from './waiting';

const LOOK_MS = 10_000;
/** A new version is asked for this often where a page stays open for days. */
const UPDATE_MS = 30 * 60_000;

/**
 * Keeps pages for where there is no network, sends what waits of every job from any page, and says what it cannot.
 *
 * `nobodys`: a page that is kept with the program, and says nothing of who is signed in
 */
export function Offline({ nobodys }: { nobodys: boolean }) {
  const name = useWho()?.name ?? null;
  useEffect(() => {
    if (!nobodys) rememberPerson(name);
  }, [nobodys, name]);
  return (
    <SerwistProvider swUrl="/serwist/sw.js" register={false} cacheOnNavigation={false} reloadOnOnline={false}>
      <Strips>
        <Keeper />
        <WaitingStrip />
      </Strips>
    </SerwistProvider>
  );
}

/** At the foot of every page, in nobody's way: a page that is as high as the window gives up what they take. */
function Strips({ children }: { children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const { style } = document.documentElement;
    const watch = new ResizeObserver(() =>
      style.setProperty('--strips', `${box.current?.offsetHeight ?? 0}px`),
    );
    watch.observe(box.current!);
    return () => {
      watch.disconnect();
      style.removeProperty('--strips');
    };
  }, []);
  return (
    <div ref={box} className="sticky bottom-0 z-30 print:hidden">
      {children}
    </div>
  );
}

const STRIP =
  'flex min-h-11 flex-wrap items-center gap-x-3 border-t-2 border-ink bg-pencil-t px-6 py-1.5 text-[15.5px]';

/** Entries of other pages' jobs that the server does not have yet: counted, and sent as soon as it answers. */
function WaitingStrip() {
  const who = useWho();
  const path = usePathname();
  const [waiting, setWaiting] = useState<Waiting | null>(null);
  const signed = who?.name ?? null;
  useEffect(() => {
    // Of a page that no server made only the browser knows who is signed in.
    const person = signed ?? personHere();
    let left = false;
    let busy = false;
    const look = async () => {
      if (busy) return;
      busy = true;
      try {
        const here = jobOfPath(path) ?? begunHere();
        const now = await readWaiting(person);
        // The job that is open sends its own, and says so itself.
        const others = now.jobs.filter((job) => job !== here);
        if (person !== null && !document.hidden) for (const job of others) await sendWaiting(job, person);
        const after = await readWaiting(person);
        if (!left) setWaiting({ ...after, jobs: after.jobs.filter((job) => job !== here) });
      } finally {
        busy = false;
      }
    };
    const now = () => void look();
    now();
    const timer = setInterval(now, LOOK_MS);
    window.addEventListener('online', now);
    document.addEventListener('visibilitychange', now);
    return () => {
      left = true;
      clearInterval(timer);
      window.removeEventListener('online', now);
      document.removeEventListener('visibilitychange', now);
    };
  }, [path, signed]);
  const words = waiting ? waitingWords(waiting, jobOfPath(path) !== null || path === '/begun') : [];
  if (words.length === 0) return null;
  return (
    <div role="status" data-testid="waiting">
      {words.map((one) => (
        <p key={one.words} className={STRIP}>
          <span>{one.words}</span>
          {one.jobs.slice(0, 6).map((job) => (
            <a key={job} href={stepAddress(job, 'test')} className="underline underline-offset-4">
              {isBegun(job) ? 'The one begun here' : `Job ${job}`}
            </a>
          ))}
        </p>
      ))}
    </div>
  );
}

/** The job begun here whose desk is open; it sends its own. */
function begunHere(): number | null {
  const local = location.pathname === '/begun' ? begunIn(new URLSearchParams(location.search)) : null;
  return local === null ? null : -local;
}

/** Where it is said that a browser keeps nothing: before the work, not in it. */
const SAID_AT: readonly string[] = ['/', '/new', '/account'];

/**
 * Has the browser keep the program's files, and says where it does not; says where a newer version of the program is there.
 * The open page goes on as it is: nothing is loaded under anybody's hands.
 */
function Keeper() {
  const { serwist } = useSerwist();
  const path = usePathname();
  const [fresh, setFresh] = useState(false);
  const [refused, setRefused] = useState(false);
  useEffect(() => {
    const keeps = serwist
      ? serwist.register()
      : Promise.reject(new Error('this browser has no service workers'));
    // A private window, a certificate that the browser does not trust, storage that is shut.
    keeps.catch(() => setRefused(true));
    if (!serwist) return;
    const { serviceWorker } = navigator;
    void serviceWorker.ready.then(({ active }) => {
      if (serviceWorker.controller === null) active?.postMessage(HOLD);
    });
    const waits = () => setFresh(true);
    serwist.addEventListener('waiting', waits);
    const timer = setInterval(() => void serwist.update().catch(() => undefined), UPDATE_MS);
    return () => {
      serwist.removeEventListener('waiting', waits);
      clearInterval(timer);
    };
  }, [serwist]);
  return (
    <>
      {refused && SAID_AT.includes(path) ? (
        <p role="status" className={STRIP} data-testid="keeps-nothing">
          This browser keeps no pages: in a dead spot what is open goes on, and nothing can be opened anew.
        </p>
      ) : null}
      {fresh ? (
        <div role="status" className={STRIP} data-testid="new-version">
          <span>A newer version is here. This page goes on as it is; what was written is kept.</span>
          <button
            type="button"
            className="min-h-11 font-[700] underline underline-offset-4"
            onClick={() => {
              serwist?.addEventListener('controlling', () => window.location.reload());
              serwist?.messageSkipWaiting();
            }}
          >
            Load it
          </button>
        </div>
      ) : null}
    </>
  );
}
