import sharp from 'sharp';
import { chromium } from '@playwright/test';
import { apiOf } from '../tests/support/api';
import { createFleet } from '../tests/support/fleet';
import { made, sendPhoto } from '../tests/support/photos';
import type { Line } from './line';

const [WIDTH, HEIGHT] = [6000, 4000];
const SECONDS = 4;

/** A picture of 24 megapixels with detail at every scale. */
function large(seed: number): Promise<Buffer> {
  const data = Buffer.alloc(WIDTH * HEIGHT * 3);
  let state = seed;
  for (let y = 0, at = 0; y < HEIGHT; y += 1) {
    for (let x = 0; x < WIDTH; x += 1, at += 3) {
      state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
      const value = 110 + 30 * Math.cos(y / 2.2) + 24 * Math.cos(x / 31) + (state >>> 27);
      data.fill(value, at, at + 3);
    }
  }
  return sharp(data, { raw: { width: WIDTH, height: HEIGHT, channels: 3 } })
    .jpeg({ quality: 85 })
    .toBuffer();
}

/** Two photos of 24 megapixels: how long until they can stand side by side, and how smooth that is. */
export async function benchPhotos(base: string, executablePath: string): Promise<Line[]> {
  const api = apiOf(() => base);
  const study = await createFleet(base, 2);
  const row = (table: string, content: object) =>
    api.call('POST', `/studies/${study}/rows/${table}`, content);
  const paths: string[] = [];
  let slowest = 0;
  for (const at of [1, 2]) {
    const print = { print_id: `P-${at}`, contender_id: `c-${at}`, artefact_id: 'clip' };
    await row('prints', { ...print, material_id: 'pla', repeat: 1, order: at, outcome: 'success' });
    await row('specimens', { specimen_id: `S-${at}`, print_id: `P-${at}`, copy: 1 });
    const content = await large(at);
    const from = performance.now();
    const sent = await sendPhoto(api, study, `large-${at}.jpg`, content);
    const path = String(sent.content.path);
    await made(api, study, path);
    await api.call('PATCH', `/studies/${study}/photos`, {
      paths: [path],
      specimen_id: `S-${at}`,
      view: 'front',
      light: 'flat',
    });
    const corners = [
      [0, 0, 0, 80],
      [WIDTH, 0, 120, 80],
      [WIDTH, HEIGHT, 120, 0],
      [0, HEIGHT, 0, 0],
    ].map(([u_px, v_px, x_mm, y_mm]) => ({ u_px, v_px, x_mm, y_mm }));
    await api.call('PUT', `/studies/${study}/photos/marks`, { path, marks: corners });
    await made(api, study, path);
    slowest = Math.max(slowest, performance.now() - from);
    paths.push(path);
  }
  const times = await frameTimes(executablePath, base, study);
  const gaps = times.slice(1).map((time, at) => time - (times[at] ?? time));
  const mean = (1000 * gaps.length) / gaps.reduce((sum, gap) => sum + gap, 0);
  const worst = 1000 / (gaps.toSorted((a, b) => a - b)[Math.floor(0.95 * gaps.length)] ?? Infinity);
  return [
    {
      what: 'photo pair of 24 megapixels, frames a second, mean',
      figure: mean.toFixed(0),
      bar: '≥ 30',
      isMet: mean >= 30,
    },
    {
      what: 'photo pair of 24 megapixels, frames a second, 5 % slower than',
      figure: worst.toFixed(0),
      bar: '',
      isMet: true,
    },
    {
      what: 'photo of 24 megapixels, from sending to laid flat',
      figure: `${(slowest / 1000).toFixed(1)} s`,
      bar: '',
      isMet: true,
    },
  ];
}

/** The moments, ms, at which a frame was drawn while the wheel turned. */
async function frameTimes(executablePath: string, base: string, study: string) {
  const browser = await chromium.launch({
    executablePath,
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--no-first-run'],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${base}/studies/${study}/inspect/side-by-side`);
  await page.waitForLoadState('networkidle');
  const canvas = await page.locator('canvas').first().boundingBox();
  if (!canvas) throw new Error('no photos stand side by side');
  const [x, y] = [canvas.x + canvas.width / 2, canvas.y + canvas.height / 2];
  const counting = page.evaluate(
    (ms) =>
      new Promise<number[]>((resolve) => {
        const times: number[] = [];
        const begun = performance.now();
        const frame = (now: number) => {
          times.push(now);
          if (now - begun < ms) requestAnimationFrame(frame);
          else resolve(times);
        };
        requestAnimationFrame(frame);
      }),
    SECONDS * 1000,
  );
  // A hand that zooms in, drags about, and zooms out again.
  await page.mouse.move(x, y);
  const until = performance.now() + SECONDS * 1000;
  for (let turn = 0; performance.now() < until; turn += 1) {
    for (let notch = 0; notch < 8; notch += 1) await page.mouse.wheel(0, turn % 2 ? 120 : -120);
    await page.mouse.down();
    for (let move = 0; move < 20; move += 1) {
      await page.mouse.move(x + 90 * Math.sin(move / 3), y + 60 * Math.cos(move / 3));
    }
    await page.mouse.up();
  }
  const times = await counting;
  await browser.close();
  return times;
}
