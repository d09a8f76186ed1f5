'use client';

import { useState } from 'react';
import type { Licence, Role } from '@/core/people/roles';
import { useReady } from '@/ui/useReady';
import { Heading, Hold, MainKey, PlainKey, TextField, Trouble } from '@/ui/sheet';
import { siteMoment } from '@/core/units/siteTime';
import { personWords, toldWords } from '@/words/en/people';
import { Form } from '@/ui/Form';
import { forgetKept } from '../offline/caches';
import { NotAnswered, askServer } from '../askServer';
import type { SignInAsked } from './schema';
import type { SignedInAnswer } from './server';

interface Known {
  name: string;
  role: Role;
  licences: readonly Licence[];
  pin: boolean;
}

/** Who is here: a name, and the PIN or the password that goes with it. */
export function SignInScreen({
  people,
  demo,
  now,
  device,
  to,
  timeZone,
}: {
  /** Who can be picked on this device; nobody on one that the shed does not know. */
  people: readonly Known[];
  demo: boolean;
  /** Who is signed in as the page opens. */
  now: string | null;
  /** What this device is called. */
  device: string;
  /** Where to go afterwards: a path of this server. */
  to: string;
  timeZone: string;
}) {
  const [picked, setPicked] = useState<Known | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  /** The password was right, and the other half is asked for. */
  const [wantsCode, setWantsCode] = useState(false);
  const [told, setTold] = useState<{ notices: SignedInAnswer['notices']; to: string } | null>(null);
  const ready = useReady();
  const [pending, setBusy] = useState(false);
  // A name that is pressed before the page hears it would be pressed in vain.
  const busy = pending || !ready;
  const enter = async (asked: SignInAsked) => {
    setBusy(true);
    setTrouble(null);
    try {
      const { oneTime, notices } = await askServer<SignedInAnswer>('/api/session', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(asked),
      });
      // Everything that stands on a page is somebody's: it is read anew, and what was kept is let go.
      await forgetKept();
      const next = oneTime ? '/account' : to;
      if (notices.length > 0) setTold({ notices, to: next });
      else window.location.assign(next);
    } catch (error) {
      setBusy(false);
      // Asked for the first time it is no mistake of anybody's.
      if (error instanceof NotAnswered && error.code === 'code-wanted' && !wantsCode) {
        setWantsCode(true);
        return;
      }
      setTrouble(error instanceof NotAnswered ? error.message : 'The server does not answer. Try again.');
    }
  };
  const leave = async () => {
    setBusy(true);
    await askServer('/api/session', {
      method: 'DELETE',
      headers: { 'content-type': 'application/json' },
    }).catch(() => undefined);
    await forgetKept();
    window.location.assign('/sign-in');
  };
  if (told) return <Told notices={told.notices} timeZone={timeZone} to={told.to} />;
  return (
    <div className="mx-auto w-full max-w-[860px] px-6 pb-10 max-tablet:px-3">
      <Heading aside={now ? `${now} is signed in${device ? ` on ${device}` : ''}` : device || undefined}>
        Who is here?
      </Heading>
      {demo ? (
        <p className="py-3 text-[16.5px]">
          Everybody in this demonstration is invented: press a name. Where a PIN is asked for it is{' '}
          <span className="fig-bold">3190</span> for all of them.
        </p>
      ) : null}
      {people.length > 0 ? (
        <ul className="grid grid-cols-1 gap-2 py-3 tablet:grid-cols-2" aria-label="People">
          {people.map((one) => (
            <li key={one.name}>
              <button
                type="button"
                disabled={busy}
                aria-pressed={picked?.name === one.name}
                onClick={() => {
                  if (demo) return void enter({ name: one.name, demo: true });
                  setPicked(one);
                  setWantsCode(false);
                }}
                className="flex min-h-[60px] w-full flex-col items-start justify-center border-[1.5px] border-edge bg-sheet px-4 py-2 text-left aria-pressed:border-pencil aria-pressed:bg-pencil-t disabled:opacity-55"
              >
                <span className="w-full truncate text-[19px] font-[750]">{one.name}</span>
                <span className="text-[15.5px] text-ink2">{personWords(one.role, one.licences)}</span>
              </button>
            </li>
          ))}
        </ul>
      ) : (
        <p className="py-3 text-[16.5px]">
          This device is not one of the shed’s yet. Sign in once with your name and password; from then on a
          name and a PIN do.
        </p>
      )}
      {demo ? null : (
        <ProveIt
          key={picked?.name ?? ''}
          name={picked?.name ?? null}
          withPin={picked?.pin ?? false}
          wantsCode={wantsCode}
          busy={busy}
          onProve={(asked) => void enter(asked)}
        />
      )}
      {trouble ? <Trouble>{trouble}</Trouble> : null}
      {now ? (
        <p className="flex flex-wrap gap-3 py-4">
          <PlainKey disabled={busy} onClick={() => void leave()}>
            Sign {now} out
          </PlainKey>
          <a href="/account" className="inline-flex min-h-11 items-center px-2 underline underline-offset-4">
            PIN, password and this device
          </a>
        </p>
      ) : null}
      <Hold>
        What is written here is written in the name of who is signed in. Nobody signs for somebody else.
      </Hold>
    </div>
  );
}

/** What was changed of one's account since one was here last: said once, before one goes on. */
function Told({
  notices,
  timeZone,
  to,
}: {
  notices: SignedInAnswer['notices'];
  timeZone: string;
  to: string;
}) {
  return (
    <div className="mx-auto w-full max-w-[860px] px-6 pb-10 max-tablet:px-3">
      <Heading aside="since you were here last">Your account</Heading>
      <ul className="py-2">
        {notices.map((one) => (
          <li key={`${one.at} ${one.what}`} className="border-b-[1.5px] border-rule py-2 text-[17px]">
            {siteMoment(one.at, timeZone)}: {one.by} {toldWords(one.what)}
            {one.device ? `, on ${one.device}` : ''}
          </li>
        ))}
      </ul>
      <p className="py-2 text-[16.5px]">Was that not you? Tell a lead, and give yourself another password.</p>
      <MainKey onClick={() => window.location.assign(to)}>Go on</MainKey>
    </div>
  );
}

/** The PIN or the password; the name too where none was picked. */
function ProveIt({
  name: picked,
  withPin,
  wantsCode,
  busy,
  onProve,
}: {
  name: string | null;
  withPin: boolean;
  wantsCode: boolean;
  busy: boolean;
  onProve: (asked: SignInAsked) => void;
}) {
  const [pin, setPin] = useState(withPin);
  const [typed, setTyped] = useState('');
  const [secret, setSecret] = useState('');
  const [code, setCode] = useState('');
  const asksCode = wantsCode && !pin;
  const name = picked ?? typed.trim();
  return (
    <Form
      className="max-w-[420px] py-2"
      onSubmit={(event) => {
        event.preventDefault();
        const half = asksCode && code.trim() !== '' ? { code: code.trim() } : {};
        onProve(pin ? { name, pin: secret } : { name, password: secret, ...half });
        // The password stays for the code that may be asked for with it.
        if (pin) setSecret('');
        setCode('');
      }}
    >
      {picked === null ? (
        <TextField
          label="Name"
          className="pb-2"
          maxLength={60}
          autoComplete="username"
          value={typed}
          onType={setTyped}
        />
      ) : null}
      <TextField
        label={
          picked === null ? (pin ? 'PIN' : 'Password') : pin ? `PIN of ${picked}` : `Password of ${picked}`
        }
        key={pin ? 'pin' : 'password'}
        type="password"
        maxLength={200}
        autoFocus={picked !== null}
        inputMode={pin ? 'numeric' : 'text'}
        autoComplete={pin ? 'off' : 'current-password'}
        value={secret}
        onType={setSecret}
      />
      {asksCode ? (
        <TextField
          label="Now the code that your program shows, or a spare word"
          className="pt-2"
          autoFocus
          autoComplete="one-time-code"
          maxLength={40}
          value={code}
          onType={setCode}
        />
      ) : null}
      <div className="flex flex-wrap gap-3 pt-3">
        <MainKey
          type="submit"
          disabled={busy || name === '' || secret === '' || (asksCode && code.trim() === '')}
        >
          Sign in
        </MainKey>
        {picked !== null && withPin ? (
          <PlainKey onClick={() => setPin(!pin)}>{pin ? 'With the password' : 'With the PIN'}</PlainKey>
        ) : null}
      </div>
    </Form>
  );
}
