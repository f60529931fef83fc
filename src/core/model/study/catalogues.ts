/** The closed lists of words that a study's tables use. */

export const INTENTS = [
  'machines',
  'same-settings',
  'tuning',
  'before-after',
  'crossed',
  'sweep',
  'materials',
] as const;

export const KINEMATICS = [
  'cartesian-moving-bed',
  'cartesian-gantry',
  'corexy',
  'delta',
  'other',
] as const;

export const OBTAINED = ['bought', 'loaned', 'given', 'owned'] as const;

export const MACHINE_CHANGES = ['firmware', 'part', 'maintenance', 'setting', 'other'] as const;

/** What happens to a print while it runs. */
export const PRINT_EVENTS = [
  'started',
  'heated',
  'paused',
  'resumed',
  'stalled',
  'moved',
  'ended',
] as const;

/** Who says so: a person, or the bench link. */
export const EVENT_SOURCES = ['person', 'link'] as const;

/** What a crossed study crosses machines with. */
export const FACTORS = ['kind', 'slicer', 'origin', 'material'] as const;

/** Who wrote a profile. */
export const PROFILE_ORIGINS = ['maker', 'slicer', 'community', 'other-machine', 'own'] as const;

/** Whether a part may or must have supports, or more than itself on the plate. */
export const ALLOWANCES = ['none', 'allowed', 'required'] as const;

export const PLATE_SURFACES = [
  'smooth-pei',
  'textured-pei',
  'glass',
  'coated-glass',
  'phenolic',
  'tape',
  'magnetic-sticker',
  'other',
] as const;

export const PLATE_AIDS = ['none', 'glue-stick', 'spray', 'slurry', 'tape', 'other'] as const;

export const PLATE_CLEANED = ['none', 'wiped', 'solvent', 'washed'] as const;

/** How a part held to the plate. */
export const HOLDS = ['held', 'corner', 'let-go'] as const;

/** How a part came off the plate. */
export const RELEASES = ['self', 'hand', 'flexed', 'tool', 'damaged'] as const;

/** What is bought beside a machine. */
export const EQUIPMENT_KINDS = ['needed', 'spare', 'upgrade', 'delivery'] as const;

export const PROFILE_KINDS = ['stock', 'tuned'] as const;

export const AXES = ['x', 'y', 'z', 'none'] as const;

export const DIMENSION_KINDS = [
  'external',
  'internal',
  'hole',
  'boss',
  'height',
  'diagonal',
] as const;

export const LADDER_QUANTITIES = [
  'clearance',
  'overhang',
  'bridge',
  'text',
  'wall',
  'other',
] as const;

export const OUTCOMES = ['success', 'rescued', 'failed', 'aborted'] as const;

/** Where a print's grams come from: a scale, its sliced file, or nobody knows. */
export const FILAMENT_FROM = ['weighed', 'file', 'guess'] as const;

export const INCIDENT_MODES = [
  'detached',
  'warped',
  'clogged',
  'under-extruded',
  'tangled',
  'ran-out',
  'layer-shift',
  'loose-strands',
  'stalled',
  'false-alarm',
  'power-loss',
  'storage-error',
  'firmware-error',
  'connection-lost',
  'changer-fault',
  'collision',
  'heating-fault',
  'first-layer',
  'other',
] as const;

export const CAUSES = [
  'machine',
  'profile',
  'material',
  'artefact',
  'operator',
  'environment',
  'unknown',
] as const;

export const INSTRUMENT_KINDS = ['caliper', 'micrometer', 'scale', 'sound-level', 'other'] as const;

export const LADDER_RESULTS = ['clear', 'effort', 'fail', 'broken', 'untested'] as const;

export const FUNCTION_RESULTS = ['works', 'works-with-effort', 'fails'] as const;

export const DEFECTS = [
  'stringing',
  'blobs',
  'ringing',
  'layer-shift',
  'under-extrusion',
  'over-extrusion',
  'gaps',
  'seam',
  'warping',
  'elephant-foot',
  'pillowing',
  'scarring',
  'overhang-droop',
  'bridge-sag',
  'delamination',
  'vertical-banding',
  'layer-banding',
  'infill-show-through',
  'support-scars',
  'rough-underside',
  'text-lost',
  'colour-bleed',
  'burn-marks',
  'first-layer-gaps',
  'fine-diagonal-texture',
] as const;

/** The sides that an artefact is drawn from. */
export const DRAWN_SIDES = ['front', 'top', 'left', 'right', 'back', 'bottom'] as const;

export const PHOTO_VIEWS = ['front', 'back', 'left', 'right', 'top', 'bottom', 'detail'] as const;

/** How a photo was lit. */
export const LIGHTS = ['flat', 'raking-left', 'raking-right', 'raking-top', 'back'] as const;

/** What is measured on photos. */
export const PHOTO_MEASURES = ['layer-lines', 'ringing', 'strings', 'gaps', 'texture'] as const;

export const BACKGROUNDS = ['light', 'dark'] as const;

/** In what a region of a photo is told: pixels of the picture, or millimetres of the view. */
export const REGION_UNITS = ['px', 'mm'] as const;

/** What hands do to a part once it is printed. */
export const AFTERCARE_KINDS = ['support', 'brim', 'strings', 'clean-up', 'other'] as const;

export const PANEL_KINDS = ['paired', 'triangle', 'guess'] as const;

/** What judges have before them. */
export const SHOWN_AS = ['photos', 'parts'] as const;

/** Whether photos of a panel are shown as they were taken, or grey and equally bright. */
export const PHOTO_LEVELS = ['as-taken', 'matched'] as const;

/** How judges are called. */
export const JUDGE_NAMES = ['initials', 'numbers'] as const;

/** What ends a panel: as many judges as were wanted, its date, or somebody before that. */
export const PANEL_ENDS = ['number', 'date', 'hand'] as const;

/** What is noted of a panel for whoever reads its result. */
export const PANEL_EVENTS = ['looked', 'ended-early', 'taken-out', 'pace-checked'] as const;

export const BALLOT_CHOICES = ['1', '2', '3', 'tie'] as const;

export const CLAIM_FINDINGS = ['confirmed', 'partly', 'refuted', 'untested'] as const;

export const NOISE_STATES = ['idle', 'standby', 'printing', 'fans-full'] as const;

/** What it took until the first print. */
export const SETUP_KINDS = [
  'unpack',
  'assemble',
  'wire',
  'align',
  'level',
  'calibrate',
  'connect',
  'update',
  'first-print',
  'other',
] as const;

export const SETUP_HELP = ['none', 'manual', 'video', 'community', 'maker'] as const;

/** What is checked at a machine against limits. */
export const MACHINE_CHECKS = [
  'rails-parallel',
  'frame-square',
  'belt-tension',
  'plate-flatness',
  'wheel-play',
  'earth-bond',
  'ambient',
  'other',
] as const;

export const HEATED = ['bed', 'nozzle', 'chamber'] as const;

/** What a machine is put to on purpose. */
export const TRIAL_FEATURES = [
  'runout-sensor',
  'power-loss',
  'first-layer-watch',
  'failure-watch',
  'collision',
  'thermal-protection',
  'levelling',
  'vibration-compensation',
  'refill',
  'material-change',
  'connection',
  'other',
] as const;

export const TRIAL_OUTCOMES = ['as-promised', 'late', 'partly', 'nothing', 'false-alarm'] as const;

/** What is said for or against a machine. */
export const MARK_ASPECTS = [
  'handling',
  'access',
  'screen',
  'remote',
  'slicing',
  'documents',
  'parts',
  'community',
  'safety',
  'space',
  'noise',
  'looks',
  'other',
] as const;

export const MARK_SIGNS = ['plus', 'minus', 'neutral'] as const;

/** What is suspected where a print went wrong, and what came of changing it. */
export const SUSPECTS = [
  'setting',
  'material',
  'part',
  'geometry',
  'environment',
  'operator',
  'other',
] as const;

export const FOLLOW_UP_OUTCOMES = ['gone', 'less', 'same', 'worse'] as const;

/** Whether a machine has something: built in, not at all, or at extra cost. */
export const FEATURE_STATES = ['has', 'lacks', 'option'] as const;

/** What came of asking a maker. */
export const ENQUIRY_OUTCOMES = ['open', 'answered', 'promised', 'mended', 'refused'] as const;

/** What a sentence of the answer is. */
export const VERDICT_KINDS = ['answer', 'plus', 'minus', 'for-whom', 'advice', 'caveat'] as const;

export type PanelKind = (typeof PANEL_KINDS)[number];
export type Factor = (typeof FACTORS)[number];
export type Intent = (typeof INTENTS)[number];
export type Axis = (typeof AXES)[number];
export type LadderQuantity = (typeof LADDER_QUANTITIES)[number];
export type DimensionKind = (typeof DIMENSION_KINDS)[number];
export type PrintEventKind = (typeof PRINT_EVENTS)[number];
export type Outcome = (typeof OUTCOMES)[number];
export type IncidentMode = (typeof INCIDENT_MODES)[number];
export type Cause = (typeof CAUSES)[number];
