'use client';

import { Link } from '@/ui/Link';
import { machineAddress } from '@/ui/machineAddress';

const LINK = 'flex min-h-11 items-center text-[15.5px] underline underline-offset-4';

/** A machine of the shed: its page, its codes, its bus, and what is in hand on it. */
export function MachineLine({
  code,
  name,
  functions,
  openJobs,
}: {
  code: string;
  name: string;
  functions: number;
  openJobs: number;
}) {
  return (
    <li className="flex min-h-[52px] items-center gap-4 border-b-[1.5px] border-rule max-tablet:flex-wrap max-tablet:gap-y-0 max-tablet:py-1">
      <Link href={machineAddress(code)} className="fig-bold flex min-h-11 w-14 items-center text-[19px]">
        {code}
      </Link>
      <span className="min-w-0 flex-1 truncate max-tablet:basis-2/3" title={name}>
        {name}
      </span>
      <Link href={machineAddress(code, 'codes')} className={LINK}>
        codes
      </Link>
      <Link href={machineAddress(code, 'bus')} className={LINK}>
        bus
      </Link>
      <span className="text-[15.5px] text-ink2">
        {functions === 0 ? 'no circuit yet' : `${functions} ${functions === 1 ? 'function' : 'functions'}`}
      </span>
      <span
        className={`ml-auto w-24 text-right text-[15.5px] ${openJobs > 0 ? 'text-copper-ink' : 'text-ink2'}`}
      >
        {openJobs === 0 ? 'no job' : `${openJobs} in hand`}
      </span>
    </li>
  );
}
