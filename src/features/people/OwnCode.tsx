'use client';

import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { Heading, MainKey, PlainKey, TextField, Trouble } from '@/ui/sheet';
import { Form } from '@/ui/Form';
import { setUpCode, takeCodeOff, turnCodeOn } from './actions';
import { sent } from '../sent';

/** A code beside the password, of a program that counts time: set up, and taken off. */
export function OwnCode({ hasCode }: { hasCode: boolean }) {
  const [words, setWords] = useState<readonly string[] | null>(null);
  return (
    <section aria-label="Code" className="pt-2">
      <Heading aside={hasCode ? 'asked for beside the password' : 'none yet'}>
        A code beside the password
      </Heading>
      <p className="py-2 text-[16.5px]">
        A program on a telephone or a computer shows six digits that change every half minute. Who works here,
        what the site allows, the trail and the whole shed as a file are for who signed in with both.
      </p>
      {words ? <SpareWords words={words} onDone={() => setWords(null)} /> : null}
      {hasCode ? words ? null : <TakeOff /> : <SetUp onWords={setWords} />}
    </section>
  );
}

function SetUp({ onWords }: { onWords: (words: readonly string[]) => void }) {
  const router = useRouter();
  const [password, setPassword] = useState('');
  const [made, setMade] = useState<{ secret: string; picture: string } | null>(null);
  const [code, setCode] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, start] = useTransition();
  const begin = () =>
    start(async () => {
      const answer = await sent(setUpCode(password));
      setTrouble(answer.trouble);
      if ('secret' in answer && answer.secret && answer.picture) {
        setMade({ secret: answer.secret, picture: answer.picture });
        setPassword('');
      }
    });
  const confirm = () =>
    start(async () => {
      const answer = await sent(turnCodeOn(code));
      setTrouble(answer.trouble);
      if (!('words' in answer) || !answer.words) return;
      onWords(answer.words);
      router.refresh();
    });
  return (
    <>
      {made ? (
        <div className="flex flex-wrap items-start gap-6 py-2">
          <span
            role="img"
            aria-label="The secret as a picture for the program"
            className="block size-[180px] shrink-0"
            // The library's own drawing of a text of ours: squares and nothing else.
            dangerouslySetInnerHTML={{ __html: made.picture }}
          />
          <div className="min-w-0 flex-1 basis-[280px]">
            <p className="text-[16.5px]">
              Let your program look at it, or type this into it: six digits, half a minute.
            </p>
            <p
              className="fig my-2 border-[1.5px] border-edge px-3 py-2 text-[17px]"
              data-testid="code-secret"
            >
              {made.secret}
            </p>
            <Form
              className="flex flex-wrap items-end gap-3"
              onSubmit={(event) => {
                event.preventDefault();
                confirm();
              }}
            >
              <TextField
                label="The code it shows now"
                className="w-[220px]"
                inputMode="numeric"
                autoComplete="one-time-code"
                maxLength={40}
                value={code}
                onType={setCode}
              />
              <MainKey type="submit" disabled={busy || code.trim() === ''}>
                Ask for it from now on
              </MainKey>
            </Form>
          </div>
        </div>
      ) : (
        <Form
          className="flex flex-wrap items-end gap-3 py-2"
          onSubmit={(event) => {
            event.preventDefault();
            begin();
          }}
        >
          <Password value={password} onType={setPassword} />
          <PlainKey type="submit" disabled={busy || password === ''}>
            Set one up
          </PlainKey>
        </Form>
      )}
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </>
  );
}

function SpareWords({ words, onDone }: { words: readonly string[]; onDone: () => void }) {
  return (
    <div className="border-[1.5px] border-edge px-4 py-3" role="status">
      <p className="text-[16.5px]">
        ✓ It is asked for from now on. For when the program is not at hand, each of these is good once. They
        are shown this one time: write them down, and keep them where no tablet lies.
      </p>
      <ul className="fig columns-1 py-2 text-[17px] tablet:columns-2" data-testid="spare-words">
        {words.map((word) => (
          <li key={word}>{word}</li>
        ))}
      </ul>
      <PlainKey onClick={onDone}>They are written down</PlainKey>
    </div>
  );
}

function TakeOff() {
  const router = useRouter();
  const [password, setPassword] = useState('');
  const [code, setCode] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, start] = useTransition();
  return (
    <>
      <Form
        className="flex flex-wrap items-end gap-3 py-2"
        onSubmit={(event) => {
          event.preventDefault();
          start(async () => {
            const said = (await sent(takeCodeOff({ password, code }))).trouble;
            setTrouble(said);
            if (said === null) router.refresh();
          });
        }}
      >
        <Password value={password} onType={setPassword} />
        <TextField
          label="The code of now"
          className="w-[220px]"
          autoComplete="one-time-code"
          maxLength={40}
          value={code}
          onType={setCode}
        />
        <PlainKey type="submit" disabled={busy || password === '' || code.trim() === ''}>
          Ask for it no longer
        </PlainKey>
      </Form>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
    </>
  );
}

function Password({ value, onType }: { value: string; onType: (typed: string) => void }) {
  return (
    <TextField
      label="Password as it stands"
      className="w-[220px]"
      type="password"
      autoComplete="current-password"
      maxLength={200}
      value={value}
      onType={onType}
    />
  );
}
