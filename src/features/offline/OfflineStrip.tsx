'use client';

import { SerwistProvider, useSerwist } from '@serwist/turbopack/react';
import { usePathname } from 'next/navigation';
import { useEffect, useState } from 'react';
import { useWho } from '@/ui/who';
import { waitingWords } from '@/words/en/offline';
import { readWaiting, sendWaiting, type Waiting } from './waiting';

const LOOK_MS = 10_000;
/** A new version is asked for this often where a page stays open for days. */
const UPDATE_MS = 30 * 60_000;

/** Keeps pages for where there is no network, sends what waits of every job from any page, and says what it cannot. */
export function Offline() {
  return (
    <SerwistProvider swUrl="/serwist/sw.js" cacheOnNavigation={false} reloadOnOnline={false}>
      <Update />
      <WaitingStrip />
    </SerwistProvider>
  );
}

const STRIP =
  'flex min-h-11 flex-wrap items-center gap-x-3 border-t-2 border-ink bg-pencil-t px-6 py-1.5 text-[15.5px] print:hidden';

/** Entries of other pages' jobs that the server does not have yet: counted, and sent as soon as it answers. */
function WaitingStrip() {
  const who = useWho();
  const path = usePathname();
  const [waiting, setWaiting] = useState<Waiting | null>(null);
  const person = who?.name ?? null;
  useEffect(() => {
    let left = false;
    let busy = false;
    const look = async () => {
      if (busy) return;
      busy = true;
      try {
        const here = Number(/^\/jobs\/(\d+)$/.exec(path)?.[1] ?? NaN);
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
  }, [path, person]);
  const words = waiting ? waitingWords(waiting, /^\/jobs\/\d+$/.test(path)) : [];
  if (words.length === 0) return null;
  return (
    <div role="status" className="sticky bottom-0 z-30" data-testid="waiting">
      {words.map((one) => (
        <p key={one.words} className={STRIP}>
          <span>{one.words}</span>
          {one.jobs.slice(0, 6).map((job) => (
            <a key={job} href={`/jobs/${job}`} className="underline underline-offset-4">
              Job {job}
            </a>
          ))}
        </p>
      ))}
    </div>
  );
}

/** A newer version of the program is there. The open page goes on as it is; nothing is loaded under anybody's hands. */
function Update() {
  const { serwist } = useSerwist();
  const [fresh, setFresh] = useState(false);
  useEffect(() => {
    if (!serwist) return;
    const waits = () => setFresh(true);
    serwist.addEventListener('waiting', waits);
    const timer = setInterval(() => void serwist.update().catch(() => undefined), UPDATE_MS);
    return () => {
      serwist.removeEventListener('waiting', waits);
      clearInterval(timer);
    };
  }, [serwist]);
  if (!fresh) return null;
  return (
    <div role="status" className={`${STRIP} sticky bottom-0 z-30`} data-testid="new-version">
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
  );
}
