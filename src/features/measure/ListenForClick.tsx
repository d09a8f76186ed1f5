'use client';

import { useEffect, useRef, useState } from 'react';
import { clicksIn, type Click } from '@/core/trace/clicks';
import { PlainKey } from '@/ui/sheet';

/** As long as it is listened, milliseconds. */
const LISTEN_MS = 4000;

type Heard =
  { is: 'idle' } | { is: 'listening' } | { is: 'heard'; clicks: readonly Click[] } | { is: 'refused' };

/** Whether this browser lends an ear at all. */
function hasEars(): boolean {
  return (
    typeof navigator !== 'undefined' &&
    Boolean(navigator.mediaDevices?.getUserMedia) &&
    'MediaRecorder' in window
  );
}

/**
 * Listens for a click through the microphone when somebody asks for it; what was heard is looked through on this device and thrown away. What
 * it heard is said: whether that was this coil is for the person to say.
 */
export function ListenForClick() {
  const [heard, setHeard] = useState<Heard>({ is: 'idle' });
  const stop = useRef<(() => void) | null>(null);
  useEffect(() => () => stop.current?.(), []);
  if (!hasEars()) return null;
  const listen = async () => {
    setHeard({ is: 'listening' });
    try {
      const clicks = await heardClicks((end) => (stop.current = end));
      setHeard({ is: 'heard', clicks });
    } catch {
      // No microphone, not allowed, or the page was left: said, and nothing else happens.
      setHeard({ is: 'refused' });
    }
  };
  return (
    <div
      className="flex flex-wrap items-center gap-3 border-t-[1.5px] border-rule px-4 py-1.5"
      data-testid="listen"
    >
      <PlainKey onClick={() => void listen()} disabled={heard.is === 'listening'}>
        {heard.is === 'listening' ? 'Listening: switch it on now' : 'Listen for it'}
      </PlainKey>
      <p role="status" className="min-w-0 flex-1 text-[15.5px] leading-[18px]">
        {heardWords(heard)}
      </p>
    </div>
  );
}

function heardWords(heard: Heard): string {
  switch (heard.is) {
    case 'idle':
      return 'By this device’s microphone, for four seconds; nothing is kept.';
    case 'listening':
      return 'Hold it near the coil.';
    case 'refused':
      return 'The microphone is not to be had here. Use your ear.';
    case 'heard': {
      if (heard.clicks.length === 0) return 'Nothing sharp was heard. Nearer, or with the engine off?';
      const when = heard.clicks.map(({ seconds }) => `${seconds.toFixed(1)} s`).join(', ');
      return `${heard.clicks.length === 1 ? 'A sharp sound' : `${heard.clicks.length} sharp sounds`} after ${when}. Was that this one?`;
    }
  }
}

/** Records for a while and looks for clicks; `onStop` gets the way to end it early. */
async function heardClicks(onStop: (end: () => void) => void): Promise<Click[]> {
  const stream = await navigator.mediaDevices.getUserMedia({
    // What makes voices clear takes clicks for noise.
    audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
  });
  const close = () => stream.getTracks().forEach((track) => track.stop());
  try {
    const recorder = new MediaRecorder(stream);
    const pieces: Blob[] = [];
    const ended = new Promise<void>((resolve, reject) => {
      recorder.ondataavailable = ({ data }) => pieces.push(data);
      recorder.onstop = () => resolve();
      recorder.onerror = () => reject(new Error('the recording stopped'));
    });
    const timer = setTimeout(() => recorder.stop(), LISTEN_MS);
    onStop(() => {
      clearTimeout(timer);
      if (recorder.state !== 'inactive') recorder.stop();
      close();
    });
    recorder.start();
    await ended;
    const context = new AudioContext();
    try {
      const sound = await context.decodeAudioData(await new Blob(pieces).arrayBuffer());
      return clicksIn(sound.getChannelData(0), sound.sampleRate);
    } finally {
      await context.close();
    }
  } finally {
    close();
  }
}
