import type { MeshSheet } from '../../core/geometry/mesh';
import type { AskMesh } from './use-mesh-bench';
import { useState } from 'react';
import { callApi, failureText } from '../kit/request';
import { sendArtefact, sendMesh } from './send-artefact';

interface MeshImportGiven {
  artefacts: MeshImportProps['artefacts'];
  replaces: MeshImportProps['replaces'];
  ask: AskMesh | null;
  studyId: string;
}

/** A mesh that was dropped: looked at, scaled, and kept as an artefact or in place of another. */
export function useMeshImport({ artefacts, replaces, ask, studyId }: MeshImportGiven) {
  const [looked, setLooked] = useState<Looked | null>(null);
  const [name, setName] = useState('');
  const [message, setMessage] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const [twin, setTwin] = useState<string | null>(null);
  // The unit that is chosen, shown at once; the mesh follows when it has been scaled.
  const [asked, setAsked] = useState<number | null>(null);
  const target = artefacts.find(({ id }) => id === replaces);

  const guarded = async (work: () => Promise<void>) => {
    setBusy(true);
    setMessage(null);
    try {
      await work();
    } catch (error) {
      setMessage(failureText(error, 'This did not work.'));
    }
    setBusy(false);
  };
  const look = (file: File) =>
    guarded(async () => {
      if (!ask) return;
      setLooked(null);
      setTwin(null);
      if (file.size > 64 * 1024 * 1024) throw new Error('The mesh is over 64 MB: make it coarser.');
      const bytes = new Uint8Array(await file.arrayBuffer());
      const { sheet } = await ask({ ask: 'read', name: file.name, bytes });
      setLooked({ name: file.name, bytes, sheet, scale: 1 });
      setName(file.name.replace(/\.[^.]+$/, '').replace(/[_-]+/g, ' '));
    });
  const scaleTo = (scale: number) =>
    guarded(async () => {
      if (!ask || !looked) return;
      setAsked(scale);
      try {
        const { sheet } = await ask({ ask: 'scale', by: scale / looked.scale });
        setLooked({ ...looked, sheet, scale });
      } finally {
        setAsked(null);
      }
    });
  const finish = async (mesh: string) => {
    if (target) {
      const path = `/studies/${studyId}/artefacts/${target.id}/mesh`;
      const { artefact_id } = await callApi<{ artefact_id: string }>('POST', path, { mesh });
      location.assign(`/studies/${studyId}/artefacts/${artefact_id}`);
      return;
    }
    const id = await sendArtefact(studyId, { name: name.trim(), notes: null }, mesh, {});
    location.assign(`/studies/${studyId}/artefacts/${id}`);
  };
  const keep = (evenIfSame: boolean) =>
    guarded(async () => {
      if (!ask || !looked) return;
      const isAsItWas = looked.scale === 1;
      const bytes = isAsItWas ? looked.bytes : await ask({ ask: 'stl' });
      const name = isAsItWas ? looked.name : 'part.stl';
      const { path, sameAs } = await sendMesh(studyId, name, bytes, evenIfSame);
      if (path === null) setTwin(sameAs);
      else await finish(path);
    });
  return { looked, name, setName, message, isBusy, twin, asked, target, look, scaleTo, keep };
}

export interface Looked {
  name: string;
  bytes: Uint8Array;
  sheet: MeshSheet;
  /** What the numbers of the file were multiplied by to be mm. */
  scale: number;
}

export interface MeshImportProps {
  studyId: string;
  /** With the largest size of their meshes, mm, where they have one. */
  artefacts: readonly { id: string; name: string; span: number | null }[];
  /** The artefact that is to have the mesh; null for a new one. */
  replaces: string | null;
}
