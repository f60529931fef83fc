import type { Role } from './items';
import type { Fact } from './print-facts';

export type FairnessResult = 'clean' | 'noted' | 'confounded';

/** A value that all prints of a contender share, the values they have, or null for not known. */
export type SideValue = Fact | readonly Fact[];

/** One thing in which two contenders are alike or not. */
export interface FairnessItem {
  key: string;
  state: 'same' | 'different' | 'unknown';
  role: Role;
  contender_value: SideValue;
  reference_value: SideValue;
  /** Whether the prints of one contender already differ in it. */
  varies: boolean;
  /** Why a person accepts that it differs. */
  accepted?: { reason: string; operator: string | null };
}

/** Whether two contenders may be compared on an artefact in a type of material. */
export interface Fairness {
  contender: string;
  reference: string;
  artefact_id: string;
  /** Null where prints of all materials are taken together. */
  type: string | null;
  result: FairnessResult;
  items: FairnessItem[];
  sentence: string;
}
