'use client';

import { machineAddress } from '@/ui/machineAddress';
import { Command } from 'cmdk';
import { usePathname, useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { STEP_IDS } from '@/core/job/rules/stepsDone';
import { STEP_NAMES } from '@/words/en/steps';
import { stepAddress } from '../desk/steps';
import { askServer } from '../askServer';
import type { Findings } from './server';

const NOTHING: Findings & { asked: string } = { jobs: [], machines: [], asked: '' };
const ITEM =
  'flex min-h-11 cursor-pointer items-center gap-3 px-4 text-[17px] data-[selected=true]:bg-pencil-t';

/** Jump to a job, a step, a machine or a page by typing. */
export function PaletteDialog({ open, onOpen }: { open: boolean; onOpen: (open: boolean) => void }) {
  const [text, setText] = useState('');
  const [found, setFound] = useState(NOTHING);
  const [trouble, setTrouble] = useState(false);
  const router = useRouter();
  const job = /^\/jobs\/(\d+)/.exec(usePathname())?.[1];
  useEffect(() => {
    if (!open) return;
    const gone = new AbortController();
    const timer = setTimeout(() => {
      askServer<Findings>(`/api/find?q=${encodeURIComponent(text)}`, { signal: gone.signal })
        .then((answer) => {
          setFound({ ...answer, asked: text });
          setTrouble(false);
        })
        .catch(() => !gone.signal.aborted && setTrouble(true));
    }, 120);
    return () => {
      gone.abort();
      clearTimeout(timer);
    };
  }, [open, text]);
  const go = (href: string) => {
    onOpen(false);
    setText('');
    router.push(href);
  };
  const item = (key: string, href: string, children: React.ReactNode, keywords: string) => (
    <Command.Item key={key} value={`${key} ${keywords}`} onSelect={() => go(href)} className={ITEM}>
      {children}
    </Command.Item>
  );
  return (
    <Command.Dialog
      open={open}
      onOpenChange={onOpen}
      label="Jump to"
      overlayClassName="fixed inset-0 z-40 bg-film/70"
      contentClassName="fixed top-24 left-1/2 z-50 w-[620px] max-w-[calc(100vw-24px)] -translate-x-1/2 border-2 border-ink bg-sheet text-ink"
    >
      <Command.Input
        value={text}
        onValueChange={setText}
        placeholder="Job, machine, step or page"
        className="h-14 w-full border-b-2 border-ink bg-sheet px-4 text-[19px] outline-none placeholder:text-ink2"
      />
      <Command.List className="max-h-[52vh] overflow-y-auto py-1">
        <Command.Empty className="px-4 py-3 text-ink2">
          {trouble ? 'The server does not answer; pages and steps still work.' : 'Nothing is called that.'}
        </Command.Empty>
        {job
          ? STEP_IDS.map((id) =>
              item(`step ${id}`, stepAddress(Number(job), id), STEP_NAMES[id], STEP_NAMES[id]),
            )
          : null}
        {found.jobs.map(({ number, title, machine }) =>
          item(
            `job ${number}`,
            `/jobs/${number}`,
            <>
              <span className="fig-bold w-14">{machine}</span>
              <span className="min-w-0 flex-1 truncate">{title}</span>
              <span className="fig text-[15px] text-ink2">{number}</span>
            </>,
            // The server may have matched a person or a function: an answer stays listed for what it was asked.
            `${machine} ${title} ${found.asked}`,
          ),
        )}
        {found.machines.flatMap(({ code, name }) => [
          item(`machine ${code}`, machineAddress(code), `${code} ${name}`, `${code} ${name} functions draw`),
          item(`codes ${code}`, machineAddress(code, 'codes'), `Code book of ${code}`, `${code} ${name}`),
          item(
            `drawings ${code}`,
            machineAddress(code, 'drawings'),
            `Drawings of ${code}`,
            `${code} ${name}`,
          ),
          item(`bus ${code}`, machineAddress(code, 'bus'), `Bus of ${code}`, `${code} ${name}`),
        ])}
        {item('shed', '/', 'The shed', 'jobs in hand')}
        {item('closed', '/?show=closed', 'Jobs handed over', 'closed')}
        {item('new', '/new', 'New job', 'open')}
        {item('day', '/day', 'The day', 'plan who does what machines out tonight')}
        {item('retests', '/retests', 'Re-tests', 'due again calendar week overdue')}
        {item('machines', '/machines', 'Machines', 'functions library archive')}
        {item('bench', '/bench', 'Bench sheets', 'coil relay diode insulation contact terminals')}
        {item('tables', '/tables', 'Reference tables', 'gauge fuse coil contact insulation')}
        {item('policy', '/policy', 'Site policy', 'jumpers live work order')}
        {item('logs', '/codes', 'Codes and bus logs', 'decode paste log')}
      </Command.List>
    </Command.Dialog>
  );
}
