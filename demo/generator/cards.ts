import type { StudyMeta } from '../../src/core/model/study';

type Card = NonNullable<StudyMeta['scorecard']>;

/** What counts for who prints clips all day: true parts, and many of them. */
export const CLIP_BENCH_CARD: Card = {
  criteria: [
    {
      key: 'accuracy_mm',
      weight: 30,
      points: [
        [0.02, 1],
        [0.12, 0],
      ],
    },
    {
      key: 'surface',
      weight: 20,
      points: [
        [50, 0],
        [95, 1],
      ],
    },
    {
      key: 'time_index',
      weight: 15,
      points: [
        [0.4, 1],
        [0.8, 0.5],
        [1.2, 0],
      ],
    },
    {
      key: 'success',
      weight: 20,
      points: [
        [0.7, 0],
        [1, 1],
      ],
    },
    {
      key: 'price',
      weight: 15,
      points: [
        [250, 1],
        [800, 0],
      ],
    },
  ],
  gates: [
    { key: 'limit:ring-stack/clearance', op: '<=', value: 0.4 },
    { key: 'build_l', op: '>=', value: 7 },
  ],
  name: 'our clip bench',
};

/** What counts for who buys one printer and puts it into the living room. */
export const FIRST_MACHINE_CARD: Card = {
  criteria: [
    {
      key: 'price',
      weight: 40,
      points: [
        [200, 1],
        [450, 0.4],
        [800, 0],
      ],
    },
    {
      key: 'noise_db',
      weight: 20,
      points: [
        [45, 1],
        [58, 0],
      ],
    },
    {
      key: 'success',
      weight: 20,
      points: [
        [0.7, 0],
        [1, 1],
      ],
    },
    {
      key: 'surface',
      weight: 10,
      points: [
        [50, 0],
        [95, 1],
      ],
    },
    {
      key: 'aftercare_min',
      weight: 10,
      points: [
        [0, 1],
        [5, 0],
      ],
    },
  ],
  name: 'a first machine',
};
