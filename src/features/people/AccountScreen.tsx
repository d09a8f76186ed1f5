'use client';

import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { LEAST_PASSWORD_LETTERS, LEAST_PIN_DIGITS } from '@/core/people/secrets';
import { Heading, MainKey, PlainKey, TextField, Trouble } from '@/ui/sheet';
import { Form } from '@/ui/Form';
import { OwnCode } from './OwnCode';
import { callDevice, changeOwn, forgetDevice, newFeedKey } from './actions';
import { sent } from '../sent';

/** One's own PIN and password, this device, and a key for one's calendar. */
export function AccountScreen({
  name,
  oneTime,
  hasPassword,
  hasPin,
  hasCode,
  device,
  trusted,
  feed,
}: {
  name: string;
  /** Signed in with a word that somebody else gave. */
  oneTime: boolean;
  hasPassword: boolean;
  hasPin: boolean;
  /** A code is asked for beside the password. */
  hasCode: boolean;
  device: string;
  trusted: boolean;
  /** Address of the calendar, without its key. */
  feed: string;
}) {
  return (
    <div className="max-w-[760px] px-6 pb-10 max-tablet:px-3">
      {oneTime ? (
        <p className="py-3 text-[17px]">
          {name}, the word you came with was for the first sign-in. Give yourself a password of{' '}
          {LEAST_PASSWORD_LETTERS} characters or more; a sentence is best.
        </p>
      ) : null}
      <OwnSecret what="password" asks={hasPassword} first={oneTime} />
      {oneTime ? null : (
        <>
          <OwnSecret what="pin" asks={hasPassword} first={!hasPin} />
          {hasPassword ? <OwnCode hasCode={hasCode} /> : null}
          <ThisDevice device={device} trusted={trusted} />
          <Calendar feed={feed} />
        </>
      )}
    </div>
  );
}

function OwnSecret({ what, asks, first }: { what: 'pin' | 'password'; asks: boolean; first: boolean }) {
  const router = useRouter();
  const [now, setNow] = useState('');
  const [fresh, setFresh] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [kept, setKept] = useState(false);
  const [busy, start] = useTransition();
  const keep = () =>
    start(async () => {
      const answer = await sent(changeOwn(what === 'pin' ? { now, pin: fresh } : { now, password: fresh }));
      const said = answer.trouble;
      setTrouble(
        said === null ? null : said.startsWith('is ') || said.startsWith('has ') ? `It ${said}.` : said,
      );
      setKept(said === null);
      if (said !== null) return;
      setNow('');
      setFresh('');
      router.refresh();
    });
  return (
    <section aria-label={what === 'pin' ? 'PIN' : 'Password'} className="pt-2">
      <Heading
        aside={
          what === 'pin'
            ? `${LEAST_PIN_DIGITS} digits or more, for devices of the shed and as second person`
            : 'for a device that the shed does not know'
        }
      >
        {what === 'pin' ? 'PIN' : 'Password'}
      </Heading>
      <Form
        className="flex flex-wrap items-end gap-3 py-3"
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        {asks ? (
          <TextField
            label={first && what === 'password' ? 'The word you came with' : 'Password as it stands'}
            className="w-[220px]"
            type="password"
            autoComplete="current-password"
            maxLength={200}
            value={now}
            onType={setNow}
          />
        ) : null}
        <TextField
          label={what === 'pin' ? 'New PIN' : 'New password'}
          className="w-[220px]"
          type="password"
          autoComplete={what === 'pin' ? 'off' : 'new-password'}
          inputMode={what === 'pin' ? 'numeric' : 'text'}
          maxLength={200}
          value={fresh}
          onType={setFresh}
        />
        <MainKey type="submit" disabled={busy || fresh === '' || (asks && now === '')}>
          Keep it
        </MainKey>
        <span role="status" className="text-verdi">
          {kept ? '✓ Kept. It is asked for from now on.' : ''}
        </span>
      </Form>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </section>
  );
}

function ThisDevice({ device, trusted }: { device: string; trusted: boolean }) {
  const router = useRouter();
  const [name, setName] = useState(device);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, start] = useTransition();
  const done = (work: () => Promise<{ trouble: string | null }>) =>
    start(async () => {
      setTrouble((await work()).trouble);
      router.refresh();
    });
  return (
    <section aria-label="This device" className="pt-2">
      <Heading aside={trusted ? 'a PIN counts here' : 'no PIN counts here'}>This device</Heading>
      <Form
        className="flex flex-wrap items-end gap-3 py-3"
        onSubmit={(event) => {
          event.preventDefault();
          done(() => sent(callDevice(name)));
        }}
      >
        <TextField
          label="What it is called in the shed"
          className="w-[300px]"
          maxLength={60}
          placeholder="tablet by the door"
          value={name}
          onType={setName}
        />
        <PlainKey type="submit" disabled={busy}>
          Call it so
        </PlainKey>
        {trusted ? (
          <PlainKey disabled={busy} onClick={() => done(() => sent(forgetDevice()))}>
            It is the shed’s no longer
          </PlainKey>
        ) : null}
      </Form>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </section>
  );
}

function Calendar({ feed }: { feed: string }) {
  const [key, setKey] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, start] = useTransition();
  return (
    <section aria-label="Calendar" className="pt-2">
      <Heading aside="re-tests, for a calendar program">Calendar</Heading>
      <p className="py-2 text-[16.5px]">
        A calendar program cannot sign in. It comes with a key of yours that shows the re-tests and nothing
        else; a new key ends the one before it.
      </p>
      {key === null ? (
        <PlainKey
          disabled={busy}
          onClick={() =>
            start(async () => {
              const answer = await sent(newFeedKey());
              if ('key' in answer) setKey(answer.key);
              else setTrouble(answer.trouble);
            })
          }
        >
          Make a key
        </PlainKey>
      ) : (
        <p className="fig break-all border-[1.5px] border-edge px-3 py-2 text-[15.5px]" data-testid="feed">
          {feed}?key={key}
        </p>
      )}
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </section>
  );
}
