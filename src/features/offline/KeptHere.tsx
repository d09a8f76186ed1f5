'use client';

import { useEffect, useState } from 'react';
import { Heading, MainKey, Nothing } from '@/ui/sheet';
import { listBegun } from '../begun/begunStore';
import { stepAddress } from '../desk/steps';
import { listKept, type KeptPage } from './keepPages';

/** What can be opened here without a network. */
export function KeptHere() {
  const [pages, setPages] = useState<KeptPage[] | null>(null);
  useEffect(() => {
    void Promise.all([listBegun(), listKept()]).then(([begun, kept]) =>
      setPages([
        ...begun.map(({ local, title, facts }) => ({
          path: stepAddress(-local, 'test'),
          title: `${facts.machineCode} ${title}, begun here`,
        })),
        ...kept,
      ]),
    );
  }, []);
  return (
    <div className="max-w-[760px] px-6 pb-10 max-tablet:px-3">
      <p className="py-4 text-[19px]">
        No network here, or the server is away, and this page was not opened on this device before. What was
        written is kept, and is sent when the server answers.
      </p>
      <MainKey onClick={() => window.location.reload()}>Try again</MainKey>
      <section aria-labelledby="kept" className="pt-4">
        <Heading id="kept" aside="opened before, and there without a network">
          Kept on this device
        </Heading>
        {pages?.length === 0 ? <Nothing>Nothing is kept here yet.</Nothing> : null}
        <ul>
          {(pages ?? []).map(({ path, title }) => (
            <li key={path} className="border-b-[1.5px] border-rule">
              <a href={path} className="flex min-h-12 flex-wrap items-center gap-x-3">
                <strong className="font-[720]">{title}</strong>
                <span className="text-[15.5px] text-ink2">{path}</span>
              </a>
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}
