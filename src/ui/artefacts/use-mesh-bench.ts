import { useEffect, useState } from 'react';
import type { MeshAnswers, MeshReply, MeshRequest } from '../workers/mesh-bench';

/** Asks the worker that makes, reads and draws meshes. */
export type AskMesh = <Ask extends MeshRequest['ask']>(
  request: Extract<MeshRequest, { ask: Ask }>,
) => Promise<MeshAnswers[Ask]>;

function startBench(): { ask: AskMesh; stop: () => void } {
  const worker = new Worker(new URL('../workers/mesh-bench.ts', import.meta.url), {
    type: 'module',
  });
  const waiting = new Map<
    number,
    { resolve: (answer: unknown) => void; reject: (error: Error) => void }
  >();
  let last = 0;
  worker.onmessage = (event: MessageEvent<MeshReply>) => {
    const { id } = event.data;
    const one = waiting.get(id);
    waiting.delete(id);
    if ('fault' in event.data) one?.reject(new Error(event.data.fault));
    else one?.resolve(event.data.answer);
  };
  worker.onerror = () => {
    for (const { reject } of waiting.values())
      reject(new Error('The mesh could not be worked on.'));
    waiting.clear();
  };
  const ask: AskMesh = (request) =>
    new Promise((resolve, reject) => {
      last += 1;
      waiting.set(last, { resolve: resolve as (answer: unknown) => void, reject });
      worker.postMessage({ id: last, request });
    });
  return { ask, stop: () => worker.terminate() };
}

/** A worker of this page's own; null until the page is in the browser. */
export function useMeshBench(): AskMesh | null {
  const [ask, setAsk] = useState<AskMesh | null>(null);
  useEffect(() => {
    const bench = startBench();
    setAsk(() => bench.ask);
    return bench.stop;
  }, []);
  return ask;
}
