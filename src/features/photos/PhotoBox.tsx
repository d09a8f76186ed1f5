'use client';

import { Camera } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useRef, useState } from 'react';
import type { EntryOf } from '@/core/job/entries';
import { Field, FIELD, Heading, MainKey, Nothing, PlainKey, TextField, Trouble } from '@/ui/sheet';
import { useDesk } from '../desk/desk';
import { LARGEST_BYTES } from '../keepPhoto';
import { Picture } from './Picture';
import { PhotoMarks } from './PhotoMarks';

type Photo = EntryOf<'photo'>;
type Mark = Photo['body']['marks'][number];
/** Stands for a picture's hash until the server has it. */
function standIn(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(32));
  return Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('');
}

/** Pictures of the work as it was found, with marks drawn on them. */
export function PhotoBox() {
  const { log } = useDesk();
  const picker = useRef<HTMLInputElement>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [open, setOpen] = useState<Photo | null>(null);
  const { photos } = log.state;
  const take = (files: FileList | null) => {
    setTrouble(null);
    for (const file of files ?? []) {
      if (file.size > LARGEST_BYTES) setTrouble(`${file.name} has over 20 MB; take it smaller.`);
      // It counts at once, is kept in this browser, and goes to the server when that is in reach.
      else log.write({ type: 'photo', body: { photo: standIn(), caption: '', marks: [] } }, file);
    }
  };
  return (
    <section aria-labelledby="photos" className="pb-4">
      <Heading id="photos" aside="before anything is moved">
        Pictures
      </Heading>
      {photos.length === 0 ? (
        <Nothing>No picture yet. Take one of every plug before it comes off.</Nothing>
      ) : null}
      <ul className="flex flex-wrap gap-3 py-2">
        {photos.map((photo) => (
          <li key={photo.id}>
            <button
              type="button"
              onClick={() => setOpen(photo)}
              className="block w-[150px] border-[1.5px] border-edge bg-sheet text-left"
            >
              <span className="relative block">
                <Picture photo={photo.body.photo} className="h-[104px] w-full object-cover" />
              </span>
              <span className="block truncate px-2 py-1 text-[15px]">
                {photo.body.caption || 'no words yet'}
                {photo.body.marks.length > 0 ? ` (${photo.body.marks.length} marks)` : ''}
              </span>
            </button>
          </li>
        ))}
      </ul>
      <input
        ref={picker}
        type="file"
        accept="image/*"
        multiple
        className="sr-only"
        tabIndex={-1}
        aria-label="Picture"
        onChange={(event) => {
          take(event.target.files);
          event.target.value = '';
        }}
      />
      <PlainKey onClick={() => picker.current?.click()}>
        <Camera size={20} aria-hidden /> Add a picture
      </PlainKey>
      {trouble ? <Trouble>{trouble}</Trouble> : null}
      {open ? <PhotoDialog key={open.id} photo={open} onLeave={() => setOpen(null)} /> : null}
    </section>
  );
}

function PhotoDialog({ photo, onLeave }: { photo: Photo; onLeave: () => void }) {
  const { log, job } = useDesk();
  const [caption, setCaption] = useState(photo.body.caption);
  const [part, setPart] = useState(photo.body.part ?? '');
  const [marks, setMarks] = useState<Mark[]>(photo.body.marks);
  const keep = () => {
    log.write({
      type: 'photo',
      supersedes: photo.id,
      body: { photo: photo.body.photo, caption, marks, ...(part ? { part } : {}) },
    });
    onLeave();
  };
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onLeave()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[rgb(0_0_0/0.5)]" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-x-6 top-6 bottom-6 z-50 mx-auto flex max-w-[1080px] flex-col border-2 border-ink bg-sheet p-4 text-ink max-tablet:inset-x-2"
        >
          <Dialog.Title className="text-[19px] font-[780]">Picture, taken by {photo.person}</Dialog.Title>
          <PhotoMarks photo={photo.body.photo} marks={marks} onChange={setMarks} />
          <div className="mt-3 flex flex-wrap items-end gap-3">
            <TextField
              label="What it shows"
              className="flex-1"
              maxLength={200}
              value={caption}
              onType={setCaption}
            />
            <Field label="Part" className="w-[140px]">
              <select className={FIELD} value={part} onChange={(event) => setPart(event.target.value)}>
                <option value="">none</option>
                {job.circuit.parts.map(({ ref }) => (
                  <option key={ref}>{ref}</option>
                ))}
              </select>
            </Field>
            <MainKey onClick={keep}>Keep it</MainKey>
            <PlainKey
              onClick={() => log.write({ type: 'withdrawal', supersedes: photo.id, body: {} }) && onLeave()}
            >
              Take it out
            </PlainKey>
            <Dialog.Close asChild>
              <PlainKey>Leave as it was</PlainKey>
            </Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
