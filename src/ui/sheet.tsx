import { X } from 'lucide-react';
import type { ComponentProps, ReactNode } from 'react';

/** Small pieces that every screen is made of: ruled headings, keys, fields, and lines of trouble. */

export function Heading({ children, aside, id }: { children: ReactNode; aside?: ReactNode; id?: string }) {
  return (
    <h2
      id={id}
      className="flex min-h-11 flex-wrap items-baseline gap-x-3 border-b-2 border-ink pt-2 pb-1.5 text-[19px] font-[780]"
    >
      {children}
      {aside ? <span className="text-[15.5px] font-[550] text-ink2">{aside}</span> : null}
    </h2>
  );
}

const KEY = 'inline-flex min-h-11 items-center justify-center gap-2 px-5 text-[17px] disabled:opacity-55';

/** The one thing to do here. */
export function MainKey(props: ComponentProps<'button'>) {
  return (
    <button
      type="button"
      {...props}
      className={`${KEY} bg-pencil font-[750] text-sheet ${props.className ?? ''}`}
    />
  );
}

/** Everything else that can be pressed. */
export function PlainKey(props: ComponentProps<'button'>) {
  return (
    <button
      type="button"
      {...props}
      className={`${KEY} border-[1.5px] border-edge bg-sheet font-[650] aria-pressed:border-pencil aria-pressed:bg-pencil-t aria-pressed:text-pencil ${props.className ?? ''}`}
    />
  );
}

export const FIELD =
  'block min-h-11 w-full min-w-0 border-[1.5px] border-edge bg-sheet px-3 text-[17px] font-[550] placeholder:text-ink2';

/** A labelled field. */
export function Field({
  label,
  children,
  className,
}: {
  label: string;
  children: ReactNode;
  className?: string;
}) {
  return (
    <label className={`block min-w-0 text-[15.5px] font-[700] ${className ?? ''}`}>
      {label}
      <span className="mt-0.5 block">{children}</span>
    </label>
  );
}

/** A labelled field for one line of text. */
export function TextField({
  label,
  className,
  figure = false,
  onType,
  ...input
}: Omit<ComponentProps<'input'>, 'className' | 'onChange'> & {
  label: string;
  className?: string;
  /** Figures under each other, as a meter shows them. */
  figure?: boolean;
  value: string;
  onType: (typed: string) => void;
}) {
  return (
    <Field label={label} {...(className ? { className } : {})}>
      <input
        {...input}
        className={figure ? `${FIELD} fig` : FIELD}
        onChange={(event) => onType(event.target.value)}
      />
    </Field>
  );
}

/** A refusal: what was read and what to do. */
export function Trouble({ children }: { children: ReactNode }) {
  return (
    <p role="alert" className="my-2 flex gap-2 border-l-[6px] border-stamp bg-stamp-t px-4 py-2.5 text-stamp">
      <X size={18} strokeWidth={3} className="mt-0.5 shrink-0" aria-hidden />
      <span>{children}</span>
    </p>
  );
}

/** What a list says while it holds nothing. */
export function Nothing({ children }: { children: ReactNode }) {
  return <p className="py-4 text-[17px] text-ink2">{children}</p>;
}

/** The octagon with two bars: hold. */
export function HoldSign() {
  return (
    <svg width="28" height="28" viewBox="0 0 28 28" className="shrink-0" aria-hidden>
      <path d="M8.5 1h11L27 8.5v11L19.5 27h-11L1 19.5v-11z" fill="var(--ink)" />
      <path d="M10.5 8v12M17.5 8v12" stroke="var(--well)" strokeWidth="3.6" />
    </svg>
  );
}

/** One line of caution, with the line that local codes, manual and licensed practice come first. */
export function Hold({ children }: { children: ReactNode }) {
  return (
    <div className="flex min-h-11 items-center gap-3 bg-well px-4 py-2">
      <HoldSign />
      <p className="text-[15.5px] leading-[19px] font-[650]">
        {children} <span className="font-[550] text-ink2">{DEFERENCE}</span>
      </p>
    </div>
  );
}

export const DEFERENCE = 'Local codes, the machine’s manual and licensed practice come first.';
