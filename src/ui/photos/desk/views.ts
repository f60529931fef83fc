import type { PHOTO_VIEWS } from '../../../core/model/study';

export type View = (typeof PHOTO_VIEWS)[number];

/** The key of each view. */
export const VIEW_KEYS: Readonly<Record<string, View>> = {
  f: 'front',
  b: 'back',
  l: 'left',
  r: 'right',
  t: 'top',
  u: 'bottom',
  d: 'detail',
};

export const keyOfView = (view: View): string =>
  Object.keys(VIEW_KEYS).find((key) => VIEW_KEYS[key] === view) ?? '';
