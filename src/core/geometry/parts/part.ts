import type { Vector, ViewName } from '../mesh';
import type { Axis, DimensionKind, LadderQuantity } from '../../model/study';
import type { Solid } from './solid';

/** A number that a part is made by. */
export interface PartParameter {
  key: string;
  name: string;
  /** Counts have none, and are whole. */
  unit: 'mm' | '';
  lowest: number;
  highest: number;
  /** From one usual value to the next. */
  step: number;
  usual: number;
}

/** A dimension with the two places between which it is measured, mm. */
export interface PartDimension {
  id: string;
  name: string;
  axis: Axis;
  kind: DimensionKind;
  nominal_mm: number;
  /** Symmetric limit of the deviation, mm. */
  limit_mm: number;
  from: Vector;
  to: Vector;
}

export interface PartLadder {
  id: string;
  name: string;
  quantity: LadderQuantity;
  unit: string;
  /** From easy to hard, with where each step is on the part. */
  steps: readonly { value: number; at: Vector }[];
}

/** A zone as a rectangle on one view: u to the right and v upwards, mm. */
export interface PartZone {
  id: string;
  name: string;
  weight: number;
  view: ViewName;
  from: readonly [number, number];
  to: readonly [number, number];
}

/** A benchmark part with all that is looked at on it. */
export interface Part {
  solid: Solid;
  dimensions: readonly PartDimension[];
  ladders: readonly PartLadder[];
  zones: readonly PartZone[];
  /** Trials of the part's job. */
  checks: readonly string[];
  /** Middles of the copies that it holds, mm from the middle of the plate; empty for a single part. */
  copies: readonly (readonly [number, number])[];
}

/** A part that is made by numbers. */
export interface PartDesign {
  key: string;
  name: string;
  about: string;
  parameters: readonly PartParameter[];
  /** What is wrong with these numbers together, in words; empty where nothing is. */
  faults: (values: PartValues) => string[];
  make: (values: PartValues) => Part;
}

export type PartValues = Readonly<Record<string, number>>;

export const parameter = (
  key: string,
  name: string,
  usual: number,
  lowest: number,
  highest: number,
  step = 1,
  unit: PartParameter['unit'] = 'mm',
): PartParameter => ({ key, name, unit, lowest, highest, step, usual });

/** The usual numbers of a part. */
export const usualValues = (design: PartDesign): Record<string, number> =>
  Object.fromEntries(design.parameters.map(({ key, usual }) => [key, usual]));

/** What is wrong with the numbers that a part is to be made by, in words. */
export function faultsOf(design: PartDesign, values: PartValues): string[] {
  const outside = design.parameters.flatMap(({ key, name, lowest, highest, unit }) => {
    const value = values[key];
    const isInside = value !== undefined && value >= lowest - 1e-9 && value <= highest + 1e-9;
    if (isInside && (unit !== '' || Number.isInteger(value))) return [];
    const kind = unit === '' ? 'a whole number ' : '';
    return [`${name}: ${kind}between ${lowest} and ${highest}${unit && ` ${unit}`}`];
  });
  return outside.length > 0 ? outside : design.faults(values);
}

/** A size as it stands in names: 8, 7.5, 0.25. */
export const sized = (value: number): string => String(Number(value.toFixed(3)));

/** The numbers of a design by their keys. @throws RangeError for a key that it does not have */
export const reader =
  (values: PartValues) =>
  (key: string): number => {
    const value = values[key];
    if (value === undefined) throw new RangeError(`a part without its “${key}”`);
    return value;
  };
