import { apiOf } from '../tests/support/api';
import type { Line } from './line';

interface Revision {
  number: number;
  state: string;
}

/**
 * How long the demo's report with its photos takes until it is made, and how large it is.
 *
 * @param base address of a server with the demo studies
 */
export async function benchReport(base: string): Promise<Line[]> {
  const api = apiOf(() => base);
  const studies = await api.get<{ study_id: string; name: string }[]>('/studies');
  const studyId = studies.find(({ name }) => name === 'clip-bench')?.study_id ?? '';
  // Its photos are looked into first: nothing else is to be under way.
  for (;;) {
    const photos = await api.get<{ isLaid: boolean }[]>(`/studies/${studyId}/photos`);
    if (photos.every((photo) => photo.isLaid)) break;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  const path = `${base}/api/v1/studies/${studyId}/report/revisions`;
  const headers = { 'content-type': 'application/json' };
  const started = performance.now();
  const asked = await fetch(path, { method: 'POST', headers, body: '{}' });
  const { number } = (await asked.json()) as Revision;
  for (;;) {
    const all = (await (await fetch(path)).json()) as Revision[];
    const state = all.find((one) => one.number === number)?.state;
    if (state === 'failed') throw new Error('the report could not be made');
    if (state === 'ready') break;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  const seconds = (performance.now() - started) / 1000;
  const zip = await fetch(`${base}/studies/${studyId}/report/${number}/report.zip`);
  const megabytes = (await zip.arrayBuffer()).byteLength / 1e6;
  return [
    {
      what: 'report of the demo with photos: made in',
      figure: `${seconds.toFixed(1)} s`,
      bar: '< 20 s',
      isMet: seconds < 20,
    },
    {
      what: 'report of the demo with photos: zip',
      figure: `${megabytes.toFixed(1)} MB`,
      bar: '< 8 MB',
      isMet: megabytes < 8,
    },
  ];
}
