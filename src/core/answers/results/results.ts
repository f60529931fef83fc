import type { PairRow } from '../../statistics/compare';
import type { Cost, Waste } from '../../measures/cost';
import type { Ability, Mark, Setup, Trials } from '../../measures/dossier';
import type { Effects } from '../../statistics/effects';
import type { Fairness } from '../fairness';
import type { GaugeStudy } from '../../measures/gauge';
import type { FunctionTally, LadderLimit } from '../../measures/ladders';
import type {
  Accuracy,
  Driver,
  InstrumentUse,
  PlaceChange,
  PlateFit,
  Squareness,
} from '../../measures/metrology';
import type { Panel } from '../../measures/panels';
import type { Scatter } from '../plan';
import type { ModeTally, ReliabilitySets, SurvivalRow } from '../../measures/reliability';
import type { EvidenceOfCriteria, Scorecard } from '../scorecard';
import type { Speed } from '../../measures/speed';
import type {
  Aftercare,
  Defects,
  PhotoFigure,
  Surface,
  SurfaceAgreement,
} from '../../measures/surface';
import type { Sweep } from '../../measures/sweep';
import type { Reach } from '../../toolpath';

/** What the study's evidence amounts to; a section whose tables are absent is null. */
export interface Results {
  /** Which study, and by which settings its results were made. */
  study: {
    name: string;
    title: string;
    intent: string;
    reference: string | null;
    /** Intervals are two-sided 1 − alpha. */
    alpha: number;
    /** Seed of everything that is drawn. */
    seed: number;
  };
  /** By contender: how true its parts are to their nominal sizes. */
  accuracy: Record<string, Accuracy> | null;
  /** Every other contender less the reference, with the verdict. */
  pairs: {
    accuracy_mm: PairRow[] | null;
    surface: PairRow[] | null;
    ln_print_s: PairRow[] | null;
  };
  /** By contender and `artefact/dimension`: how the deviation changes over the plate. */
  plate: Record<string, Record<string, PlateFit>> | null;
  /** By contender and `artefact/square`: how far its corners are from 90°. */
  squareness: Record<string, Record<string, Squareness>> | null;
  /** By contender and `artefact/ladder`: how far it gets. */
  ladders: Record<string, Record<string, LadderLimit>> | null;
  /** By contender and `artefact/check`: how often the part does its job. */
  functions: Record<string, Record<string, FunctionTally>> | null;
  /** By contender: printing times, against the reference and against the files' own estimates. */
  speed: Record<string, Speed>;
  /** By contender, and by `machine:<id>`: outcomes, incidents, standstill. */
  reliability: Record<string, ReliabilitySets>;
  /** By contender: what went wrong, the most frequent first. */
  modes: Record<string, ModeTally[]> | null;
  /** By `machine:<id>`: the share that gets so far without an incident. */
  survival: Record<string, SurvivalRow[]> | null;
  /** By contender: what left the spool and is no part. */
  waste: Record<string, Waste>;
  /** By contender and artefact: what its good parts cost, failures counted. */
  cost: Record<string, Record<string, Cost>>;
  /** By machine and state: its sound level, brought to 1 m. */
  noise: Record<string, Record<string, { at_1m_db: number }>> | null;
  /** By contender: how clean its parts come out, by inspection. */
  surface: Record<string, Surface> | null;
  /** Where the defects sit, and in which materials. */
  defects: Defects | null;
  /** How well the inspectors agree. */
  surface_agreement: SurfaceAgreement | null;
  /** By contender and `artefact/measure/light`: what was measured on photos. */
  photo: Record<string, Record<string, PhotoFigure>> | null;
  /** By contender and artefact: what hands did to the parts once they were printed. */
  aftercare: Record<string, Record<string, Aftercare>> | null;
  /** By panel: what people said who saw parts without knowing whose they are. */
  panels: Record<string, Panel> | null;
  /** Machine or profile: what each explains of a response of prints, and what tuning gains. */
  effects: Record<'ln_mae' | 'surface_index' | 'ln_print_s', Effects | null>;
  /** What was claimed, and what was found. */
  claims: { claim_id: string; machine_id: string; finding: string | null }[] | null;
  /** By instrument and `artefact/dimension`: what it is good for. */
  gauge: Record<string, Record<string, GaugeStudy>> | null;
  /** Every contender against the reference, on every artefact that both have printed. */
  fairness: Fairness[];
  /** By machine: what it took until its first print, and how it was found. */
  setup: Record<string, Setup> | null;
  /** By machine and feature: how it answered to what was provoked or used on purpose. */
  trials: Record<string, Record<string, Trials>> | null;
  /** By machine and type of material: what it does with it. */
  ability: Record<string, Record<string, Ability>>;
  /** By machine and aspect: the marks that were given. */
  marks: Record<string, Record<string, Mark>> | null;
  /** By the key that a scorecard knows a figure by: every other contender less the reference. */
  differences: Record<string, PairRow[]>;
  /** By criterion and contender: all that a scorecard can weigh. */
  criteria: EvidenceOfCriteria;
  /** The study's own scorecard, filled in. */
  scorecard: Scorecard | null;
  /** How far a setting can be taken before something is lost; of studies that ask that only. */
  sweep: Sweep | null;
  /** Against the reference: which dimensions drive the difference, largest share first. */
  drivers: Record<string, Driver[]> | null;
  /** Against the reference, place by place of the plate, where that is what the study asks. */
  by_place: Record<string, Record<string, PlaceChange[]>> | null;
  /** By instrument: what was read with it, and how well that repeats. */
  instruments: Record<string, InstrumentUse> | null;
  /** How much prints of one contender and artefact scatter, in the units of `pairs`. */
  scatter: { accuracy_mm: Scatter | null; ln_print_s: Scatter | null };
  /** By contender: claim, command and reach over the sliced files of its prints and its plan. */
  reach: Record<string, Reach> | null;
}

/** The sections of the results: everything but what they are of. */
export type SectionName = Exclude<keyof Results, 'study'>;
