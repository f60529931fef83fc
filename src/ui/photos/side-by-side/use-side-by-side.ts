import { useMemo, useRef, useState } from 'react';
import type { ContenderSettings, ViewBox } from '../../../core/measures/image';
import type { ContenderMark } from '../../../core/model/study';
import type { BenchZone } from '../../../contract/inspect';
import type { PhotosData } from '../../../contract/photos';
import { nearest } from '../../kit/event-target';
import { useKeys } from '../../kit/use-keys';
import { meanGrey } from '../tiles';
import { usePhotos } from '../use-photos';
import { between, pointUnder } from '../use-place';
import { useTileDraws } from '../use-tile-draws';
import { shuffled } from './shuffled';
import { subjectsOf } from './subjects';
import { useSharedPlace } from './use-shared-place';
import { matchingGains, windowsOf, type Mode } from './windows';

export interface SideBySideProps extends PhotosData {
  studyId: string;
  marks: readonly ContenderMark[];
  reference: string | null;
  zones: Record<string, BenchZone[]>;
  settings: Record<string, ContenderSettings>;
}

/** More than this do not stand side by side. */
const MOST = 6;

/** How the photos are looked at: over each other or beside, with what raised or hidden. */
function useLook() {
  const [mode, setMode] = useState<Mode>('side');
  const [turn, setTurn] = useState(0);
  const [split, setSplit] = useState(0.5);
  const [isMatched, setMatched] = useState(false);
  const [isStrong, setStrong] = useState(false);
  const [hasZones, setZones] = useState(false);
  return {
    mode,
    setMode,
    turn,
    setTurn,
    /** A mode, or side by side again where it was this one. */
    choose: (next: Mode) => {
      setMode(mode === next ? 'side' : next);
      setTurn(0);
    },
    split,
    setSplit,
    isMatched,
    turnMatched: () => setMatched(!isMatched),
    isStrong,
    turnStrong: () => setStrong(!isStrong),
    hasZones,
    turnZones: () => setZones(!hasZones),
  };
}

/** Which photos are shown, and in which order while names are hidden. */
function useChoice(props: SideBySideProps) {
  const { studyId, specimens, marks } = props;
  const desk = usePhotos(studyId, props.photos);
  const subjects = useMemo(
    () => subjectsOf(desk.photos, specimens, marks),
    [desk.photos, specimens, marks],
  );
  const [asked, setAsked] = useState('');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [order, setOrder] = useState<readonly string[] | null>(null);
  const subject = subjects.find((one) => one.key === asked) ?? subjects[0];
  const all = subject?.photos ?? [];
  const chosen = all.filter(({ photo }) => !left.has(photo.path)).slice(0, MOST);
  const shown = order
    ? order.flatMap((path) => chosen.filter(({ photo }) => photo.path === path))
    : chosen;
  return {
    desk,
    subjects,
    subject,
    setAsked,
    left,
    order,
    setOrder,
    chosen,
    shown,
    // While names are hidden, the choices stand in the shuffled order too; what is left out is not offered.
    listed: order ? shown : all,
    leaveOut: (path: string) => {
      const next = new Set(left);
      if (!next.delete(path)) next.add(path);
      setLeft(next);
      setOrder(null);
    },
    ask: (key: string) => {
      setAsked(key);
      setLeft(new Set());
      setOrder(null);
    },
  };
}

/** A region that is dragged over the photos, in mm of the part. */
function useRegion(pointOf: (event: React.PointerEvent) => { x: number; y: number }) {
  const [region, setRegion] = useState<ViewBox | null>(null);
  const [isDrawing, setDrawing] = useState(false);
  const corner = useRef<{ x: number; y: number } | null>(null);
  const drawing = {
    onPointerDown: (event: React.PointerEvent) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      corner.current = pointOf(event);
    },
    onPointerMove: (event: React.PointerEvent) => {
      if (corner.current) setRegion(between(corner.current, pointOf(event)));
    },
    onPointerUp: () => {
      corner.current = null;
      setDrawing(false);
    },
    onPointerCancel: () => {
      corner.current = null;
    },
  };
  return { region, setRegion, isDrawing, setDrawing, drawing };
}

/** The same place of every contender: what is shown, how, where, and what the keys do. */
export function useSideBySide(props: SideBySideProps) {
  const { studyId } = props;
  const look = useLook();
  const choice = useChoice(props);
  const { subject, subjects, shown, order, setOrder } = choice;
  const frame = useRef<HTMLDivElement>(null);
  const { tiles, redraw, register } = useTileDraws();
  const shared = useSharedPlace({ subjects, subject, frame, redraw, onAsked: choice.setAsked });
  const { place, go, zoom, fit } = shared;
  const pointOf = (event: React.PointerEvent) => pointUnder(event, place.current);
  const area = useRegion(pointOf);
  const [hasLoupe, setLoupe] = useState(false);
  const loupe = useRef<{ x: number; y: number } | null>(null);
  const turnLoupe = () => {
    setLoupe(!hasLoupe);
    loupe.current = hasLoupe ? null : { x: place.current.x, y: place.current.y };
  };
  const hide = () => {
    if (order) return setOrder(null);
    setOrder(shuffled(choice.chosen.map(({ photo }) => photo.path)));
    look.setTurn(0);
  };
  const gains = look.isMatched
    ? matchingGains(shown.map(({ photo }) => meanGrey(tiles, studyId, photo)))
    : [];

  useKeys((event) => {
    if (event.altKey) return null;
    const step = 60 / place.current.scale;
    const { x, y } = place.current;
    const keys: Record<string, () => void> = {
      arrowleft: () => go({ x: x - step }),
      arrowright: () => go({ x: x + step }),
      arrowup: () => go({ y: y + step }),
      arrowdown: () => go({ y: y - step }),
      '+': () => zoom(1.25),
      '=': () => zoom(1.25),
      '-': () => zoom(0.8),
      '0': () => fit(subject),
      '\\': () => look.choose('split'),
      d: () => look.choose('difference'),
      g: look.turnMatched,
      k: look.turnStrong,
      z: look.turnZones,
      l: turnLoupe,
      b: hide,
      r: () => area.setDrawing(!area.isDrawing),
      ' ': () => {
        if (look.mode === 'blink') look.setTurn((look.turn + 1) % Math.max(1, shown.length));
        else look.choose('blink');
      },
      escape: () => {
        look.setMode('side');
        area.setDrawing(false);
      },
    };
    if (event.key === ' ' && nearest(event, 'button, a')) return null;
    return keys[event.key.toLowerCase()] ?? null;
  }, 'input, select, textarea, dialog, summary');

  return {
    ...look,
    ...choice,
    ...shared,
    ...area,
    given: props,
    studyId,
    frame,
    tiles,
    register,
    hasLoupe,
    loupe,
    turnLoupe,
    hide,
    windows: windowsOf(look.mode, look.turn, shown, gains),
    /** Another subject: everything of it is shown, as a whole. */
    turnTo: (key: string) => {
      choice.ask(key);
      area.setRegion(null);
      const next = subjects.find((one) => one.key === key);
      setTimeout(() => fit(next));
    },
    moveLoupe: (event: React.PointerEvent) => {
      if (!hasLoupe) return;
      loupe.current = pointOf(event);
      requestAnimationFrame(redraw);
    },
  };
}

export type SideBySideModel = ReturnType<typeof useSideBySide>;
