import { useRef, useState } from 'react';
import type { ShownPhoto } from '../../contract/photos';
import { asItStands, callApi, failureText } from '../kit/request';
import { sendFile } from '../kit/send-file';
import { concerns, useStudyNews } from '../lib/live';
import { usePolling } from '../kit/use-polling';

/** A photo on its way from the camera or the disk. */
export interface SendingPhoto {
  key: string;
  name: string;
  share: number;
  /** Waits for a connection. */
  isWaiting: boolean;
  message: string | null;
}

/** What is said of photos as they come. */
export interface ToldOfPhotos {
  specimen_id?: string;
  view?: string | null;
  light?: string | null;
  session?: string | null;
}

export interface Photos {
  photos: readonly ShownPhoto[];
  sending: readonly SendingPhoto[];
  message: string;
  /** Sends files; their facts are kept in the action that makes each a photo of the study. */
  send: (files: readonly File[], told: ToldOfPhotos) => void;
  /** Does something with photos on the server, and reads them again. */
  change: (work: () => Promise<unknown>) => Promise<boolean>;
  forget: (key: string) => void;
}

const EVERY_MS = 900;
const AT_ONCE = 2;

function hashOf(file: File): Promise<string> {
  const worker = new Worker(new URL('../workers/hash-file.ts', import.meta.url), {
    type: 'module',
  });
  return new Promise<string>((resolve, reject) => {
    worker.onerror = () => reject(new Error('the file could not be read here'));
    worker.onmessage = (event: MessageEvent<string | null>) => {
      if (event.data !== null) resolve(event.data);
      else reject(new Error('the file could not be read here'));
    };
    worker.postMessage(file);
  }).finally(() => worker.terminate());
}

/** The photos of a study as they stand on the server, and those that are on their way there. */
export function usePhotos(studyId: string, initial: readonly ShownPhoto[]): Photos {
  const [photos, setPhotos] = useState(initial);
  const [sending, setSending] = useState<readonly SendingPhoto[]>([]);
  const [message, setMessage] = useState('');
  const queue = useRef<{ file: File; key: string; told: ToldOfPhotos }[]>([]);
  const active = useRef(0);
  const base = `/studies/${studyId}/photos`;
  const refresh = () =>
    asItStands(() => callApi<ShownPhoto[]>('GET', base)).then(setPhotos, () => undefined);
  const isUnfinished = photos.some(
    (photo) => photo.state === 'waiting' || (photo.registration !== null && !photo.isRectified),
  );
  usePolling(refresh, EVERY_MS, isUnfinished);
  useStudyNews(studyId, (news) => {
    if (concerns(news, 'photos', 'photo_marks', 'photo_measures', 'specimens')) void refresh();
  });

  const put = (key: string, more: Partial<SendingPhoto>) =>
    setSending((known) => known.map((one) => (one.key === key ? { ...one, ...more } : one)));
  const forget = (key: string) => setSending((known) => known.filter((one) => one.key !== key));
  const sendOne = async (file: File, key: string, told: ToldOfPhotos) => {
    try {
      const digest = await hashOf(file);
      const { path, isKnown } = await sendFile(
        base,
        file,
        digest,
        (share, isWaiting) => put(key, { share, isWaiting }),
        new AbortController().signal,
        Object.keys(told).length > 0 ? told : undefined,
      );
      if (isKnown) put(key, { share: 1, message: `this photo is here already, as ${path}` });
      else forget(key);
    } catch (error) {
      put(key, { message: failureText(error) });
    }
    await refresh();
  };
  const work = () => {
    while (active.current < AT_ONCE) {
      const next = queue.current.shift();
      if (!next) return;
      active.current += 1;
      void sendOne(next.file, next.key, next.told).finally(() => {
        active.current -= 1;
        work();
      });
    }
  };
  return {
    photos,
    sending,
    message,
    forget,
    send: (files, told) => {
      const added = files.map((file, at) => ({
        file,
        told,
        key: `${Date.now()}-${at}-${file.name}`,
      }));
      queue.current.push(...added);
      setSending((known) => [
        ...known,
        ...added.map(({ key, file }) => ({
          key,
          name: file.name,
          share: 0,
          isWaiting: false,
          message: null,
        })),
      ]);
      work();
    },
    change: async (doing) => {
      try {
        await doing();
        setMessage('');
        return true;
      } catch (error) {
        setMessage(failureText(error));
        return false;
      } finally {
        await refresh();
      }
    },
  };
}
