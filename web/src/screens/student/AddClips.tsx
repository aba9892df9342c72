'use client';

import { useRouter } from 'next/navigation';
import { useRef, useState, type DragEvent } from 'react';
import { Button } from '@/ui/button';
import { NewClip, type Answers } from './NewClip';

/** Drop or choose files; each is looked into, asked about, and sent. */
export function AddClips({ studentId }: { studentId: string }) {
  const router = useRouter();
  const [files, setFiles] = useState<readonly { id: number; file: File }[]>([]);
  /** What was said of all that lie here; files that come later are asked about again. */
  const [shared, setShared] = useState<Answers | null>(null);
  const [isOver, setOver] = useState(false);
  const chooser = useRef<HTMLInputElement>(null);
  const counter = useRef(0);

  const add = (list: FileList | null) => {
    const added = [...(list ?? [])].map((file) => ({ id: counter.current++, file }));
    setShared(null);
    setFiles((present) => [...present, ...added]);
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    add(event.dataTransfer.files);
  };
  const remove = (id: number) => setFiles((present) => present.filter((one) => one.id !== id));

  return (
    <div>
      <div
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={drop}
        className={`flex flex-wrap items-center gap-4 border border-dashed border-soft px-5 py-5 ${isOver ? 'bg-shade' : ''}`}
      >
        <Button onClick={() => chooser.current?.click()}>Choose clips</Button>
        <span className="text-soft">or drop video files here: MP4, MOV, WebM, MKV</span>
        <input
          ref={chooser}
          type="file"
          multiple
          accept="video/*,.mkv"
          aria-label="Video files"
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => {
            add(event.target.files);
            event.target.value = '';
          }}
        />
      </div>
      {files.map(({ id, file }) => (
        <NewClip
          key={id}
          file={file}
          studentId={studentId}
          others={files.length - 1}
          shared={shared}
          onShare={setShared}
          onAway={() => remove(id)}
          onAdded={(clipId) => {
            remove(id);
            // The only file of its kind goes straight to the bench; of several, the list is shown.
            if (files.length === 1) router.push(`/bench/${clipId}`);
            else router.refresh();
          }}
        />
      ))}
    </div>
  );
}
