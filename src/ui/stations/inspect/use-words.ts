import { useEffect, useRef, useState } from 'react';
import type { InspectorsWord, EnteredFinding } from '../../../contract/inspect';
import type { Stored } from '../../../contract/rows';
import { callApi, failureText } from '../../kit/request';
import { useSerialQueue } from '../../kit/use-serial-queue';
import { sendOrKeep } from '../../lib/outbox';

/** What was said of a zone: its findings, none where it is clean; undefined where nothing is said. */
export type Word = readonly EnteredFinding[] | undefined;

export interface Words {
  isReady: boolean;
  of: (specimen: string, zone: string) => Word;
  /** Says something of a zone, in place of what was said; null takes it back. */
  say: (specimen: string, zone: string, findings: readonly EnteredFinding[] | null) => void;
  /** Takes the last thing back that was said here; tells of which zone, or null. */
  undo: () => { specimen: string; zone: string } | null;
  message: string;
}

const keyOf = (specimen: string, zone: string) => `${specimen} ${zone}`;

interface Said {
  specimen: string;
  zone: string;
  before: Word;
}

/** An inspector's words on the zones of all specimens, kept as they are said. */
export function useWords(studyId: string, inspector: string): Words {
  const [words, setWords] = useState<ReadonlyMap<string, Word> | null>(null);
  const [message, setMessage] = useState('');
  const said = useRef<Said[]>([]);
  const inTurn = useSerialQueue();
  const base = `/studies/${studyId}/inspections`;
  useEffect(() => {
    said.current = [];
    if (inspector === '') return undefined;
    let isGone = false;
    callApi<{ inspections: Stored<'inspections'>[]; findings: Stored<'findings'>[] }>(
      'GET',
      `${base}?inspector=${encodeURIComponent(inspector)}`,
    ).then(
      ({ inspections, findings }) => {
        if (isGone) return;
        const known = new Map<string, EnteredFinding[]>(
          inspections.map((row) => [keyOf(row.specimen_id, row.zone_id), []]),
        );
        for (const {
          specimen_id,
          zone_id,
          inspector: _,
          row_version: __,
          ...finding
        } of findings) {
          known.get(keyOf(specimen_id, zone_id))?.push(finding);
        }
        setWords(known);
      },
      (error: unknown) => !isGone && setMessage(failureText(error)),
    );
    return () => {
      isGone = true;
      setWords(null);
    };
  }, [base, inspector]);

  const put = (specimen: string, zone: string, word: Word) =>
    setWords((known) => new Map(known).set(keyOf(specimen, zone), word));
  const send = (specimen: string, zone: string, word: Word, before: Word) => {
    put(specimen, zone, word);
    const content: InspectorsWord = {
      specimen_id: specimen,
      zone_id: zone,
      inspector,
      at: new Date().toISOString(),
      findings: word ? [...word] : null,
    };
    // One after another: what is said last of a zone is what stands.
    void inTurn(() =>
      sendOrKeep(base, content).then(
        () => setMessage(''),
        (error: unknown) => {
          put(specimen, zone, before);
          setMessage(`It was not saved: ${failureText(error)}`);
        },
      ),
    );
  };
  return {
    isReady: words !== null,
    of: (specimen, zone) => words?.get(keyOf(specimen, zone)),
    say: (specimen, zone, findings) => {
      const before = words?.get(keyOf(specimen, zone));
      said.current.push({ specimen, zone, before });
      send(specimen, zone, findings ?? undefined, before);
    },
    undo: () => {
      const last = said.current.pop();
      if (!last) return null;
      send(last.specimen, last.zone, last.before, words?.get(keyOf(last.specimen, last.zone)));
      return { specimen: last.specimen, zone: last.zone };
    },
    message,
  };
}
