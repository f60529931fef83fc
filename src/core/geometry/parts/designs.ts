import { echoWall } from './echo-wall';
import { lantern } from './lantern';
import type { PartDesign } from './part';
import { ringStack } from './ring-stack';
import { spirePair } from './spire-pair';
import { stairBlock } from './stair-block';
import { tileField } from './tile-field';

/** The parts that are made by numbers. */
export const PART_DESIGNS: readonly PartDesign[] = [
  stairBlock,
  tileField,
  spirePair,
  echoWall,
  ringStack,
  lantern,
];
