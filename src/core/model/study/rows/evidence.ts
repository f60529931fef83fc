import * as z from 'zod';
import {
  AFTERCARE_KINDS,
  BACKGROUNDS,
  BALLOT_CHOICES,
  CAUSES,
  CLAIM_FINDINGS,
  DEFECTS,
  FUNCTION_RESULTS,
  INSTRUMENT_KINDS,
  JUDGE_NAMES,
  LADDER_RESULTS,
  LIGHTS,
  NOISE_STATES,
  PANEL_ENDS,
  PANEL_EVENTS,
  PANEL_KINDS,
  PHOTO_LEVELS,
  PHOTO_MEASURES,
  PHOTO_VIEWS,
  REGION_UNITS,
  SHOWN_AS,
} from '../catalogues';
import {
  anyNumber,
  choice,
  count,
  dayOrTime,
  grade,
  id,
  maybe,
  MOST_JUDGES,
  MOST_QUESTIONS,
  MOST_STEPS,
  MOST_TRIALS,
  name,
  nonNegative,
  path,
  positive,
  share,
  text,
  time,
  uid,
} from '../values';

/** A caliper, scale or meter, with what its certificate says. */
export const instrumentRow = () =>
  z.object({
    instrument_id: id(),
    name: text(),
    kind: maybe(choice(INSTRUMENT_KINDS)),
    resolution_mm: maybe(positive()),
    expanded_uncertainty_mm: maybe(nonNegative()),
    zero_mm: maybe(anyNumber()),
    serial: maybe(text()),
    certificate: maybe(text()),
    uid: maybe(uid()),
  });

/** One value from one instrument by one operator; superseded, never overwritten. */
export const readingRow = () =>
  z.object({
    specimen_id: id(),
    dimension_id: id(),
    trial: count(MOST_TRIALS),
    value_mm: nonNegative(),
    instrument_id: maybe(id()),
    operator: maybe(name()),
    at: maybe(time()),
    superseded_at: maybe(time()),
  });

/** A dimension of a specimen that somebody tried to measure and could not. */
export const unmeasuredRow = () =>
  z.object({
    specimen_id: id(),
    dimension_id: id(),
    reason: maybe(text()),
    operator: maybe(text()),
    at: maybe(time()),
  });

/** How one step of a ladder went on one specimen. */
export const ladderResultRow = () =>
  z.object({
    specimen_id: id(),
    ladder_id: id(),
    step: count(MOST_STEPS),
    result: choice(LADDER_RESULTS),
  });

/** A trial of the part's job. */
export const functionResultRow = () =>
  z.object({
    specimen_id: id(),
    check: name(),
    result: choice(FUNCTION_RESULTS),
    note: maybe(text()),
  });

/** A zone of a specimen that was looked at; with no finding it is clean. */
export const inspectionRow = () =>
  z.object({
    specimen_id: id(),
    zone_id: id(),
    inspector: name(),
    at: maybe(time()),
  });

/** A defect of a kind, in a zone, of a grade, by an inspector. */
export const findingRow = () =>
  z.object({
    specimen_id: id(),
    zone_id: id(),
    inspector: name(),
    defect: choice(DEFECTS),
    grade: grade(),
    cause: maybe(choice(CAUSES)),
    note: maybe(text()),
    /** Where it is: a box on a view, mm, and the photo that shows it. */
    view: maybe(choice(PHOTO_VIEWS)),
    x_mm: maybe(anyNumber()),
    y_mm: maybe(anyNumber()),
    w_mm: maybe(positive()),
    h_mm: maybe(positive()),
    path: maybe(path()),
  });

/** A picture of a specimen. */
export const photoRow = () =>
  z.object({
    specimen_id: id(),
    path: path(),
    view: maybe(choice(PHOTO_VIEWS)),
    px_per_mm: maybe(positive()),
    taken_at: maybe(time()),
    light: maybe(choice(LIGHTS)),
    /** Same camera, place and lamp. */
    session: maybe(text()),
  });

/** A pixel of a photo and the point of the view that it shows. */
export const photoMarkRow = () =>
  z.object({
    specimen_id: id(),
    path: path(),
    mark: count(1000),
    u_px: anyNumber(),
    v_px: anyNumber(),
    x_mm: anyNumber(),
    y_mm: anyNumber(),
  });

/** A measure on a region of a photo, with its figure as it was computed last. */
export const photoMeasureRow = () =>
  z.object({
    specimen_id: id(),
    path: path(),
    measure_id: id(),
    measure: choice(PHOTO_MEASURES),
    x: anyNumber(),
    y: anyNumber(),
    w: positive(),
    h: positive(),
    unit: choice(REGION_UNITS),
    layer_height_mm: maybe(positive()),
    speed_mm_s: maybe(positive()),
    background: maybe(choice(BACKGROUNDS)),
    /** What of the part, in a word: `x`, `y`, `long side`. Figures of features are kept apart. */
    feature: maybe(name()),
    operator: maybe(text()),
    at: maybe(time()),
    value_key: maybe(text()),
    value: maybe(anyNumber()),
    low: maybe(anyNumber()),
    high: maybe(anyNumber()),
    /** Whether it is above the noise; as a word. */
    found: maybe(choice(['true', 'false'])),
  });

/** Another value of a measure on a photo. */
export const photoValueRow = () =>
  z.object({
    measure_id: id(),
    key: name(),
    value: maybe(anyNumber()),
    low: maybe(anyNumber()),
    high: maybe(anyNumber()),
  });

/** What hands did to a specimen once it was printed. */
export const aftercareRow = () =>
  z.object({
    specimen_id: id(),
    kind: choice(AFTERCARE_KINDS),
    minutes: nonNegative(),
    damage: maybe(grade()),
    /** What stays on the part. */
    residue: maybe(grade()),
    operator: maybe(name()),
    note: maybe(text()),
  });

/** People judging specimens blind. */
export const panelRow = () =>
  z.object({
    panel_id: id(),
    kind: choice(PANEL_KINDS),
    aspect: text(),
    artefact_id: maybe(id()),
    target: maybe(id()),
  });

/** One answer of one judge. */
export const ballotRow = () =>
  z.object({
    panel_id: id(),
    judge: name(),
    item_1: id(),
    item_2: id(),
    item_3: maybe(id()),
    choice: choice(BALLOT_CHOICES),
    at: maybe(time()),
  });

/** How a panel was held: what was shown to whom, and what ended it. */
export const panelSetupRow = () =>
  z.object({
    panel_id: id(),
    shown_as: choice(SHOWN_AS),
    names: choice(JUDGE_NAMES),
    view: maybe(choice(PHOTO_VIEWS)),
    light: maybe(choice(LIGHTS)),
    x_mm: maybe(anyNumber()),
    y_mm: maybe(anyNumber()),
    w_mm: maybe(positive()),
    h_mm: maybe(positive()),
    levels: maybe(choice(PHOTO_LEVELS)),
    /** So many judges are wanted. */
    judges: count(MOST_JUDGES),
    /** Questions of a judge, and how many of them come once more. */
    questions: count(MOST_QUESTIONS),
    asked_again: maybe(count(MOST_QUESTIONS)),
    /** What it should be able to find: who can tell, or who prefer the one; a share. */
    effect: maybe(share()),
    closes_at: maybe(time()),
    opened_at: maybe(time()),
    closed_at: maybe(time()),
    closed_by: maybe(choice(PANEL_ENDS)),
    revealed_at: maybe(time()),
  });

/** What somebody did with a panel that its result must say. */
export const panelNoteRow = () =>
  z.object({
    panel_id: id(),
    at: time(),
    what: choice(PANEL_EVENTS),
    operator: maybe(name()),
    note: text(),
  });

/** How long a judge took for an answer. */
export const ballotTimeRow = () =>
  z.object({
    panel_id: id(),
    judge: name(),
    item_1: id(),
    item_2: id(),
    item_3: maybe(id()),
    seconds: nonNegative(),
  });

/** Something the maker or shop states, and what was found. */
export const claimRow = () =>
  z.object({
    claim_id: id(),
    machine_id: id(),
    statement: text(),
    quantity: maybe(text()),
    unit: maybe(text()),
    value: maybe(anyNumber()),
    finding: maybe(choice(CLAIM_FINDINGS)),
    evidence: maybe(text()),
    /** How long it is claimed to hold, in hours of printing or in days from `at`. */
    for_h: maybe(nonNegative()),
    for_days: maybe(nonNegative()),
    at: maybe(dayOrTime()),
  });

/** A sound level of a machine in a state, at a distance. */
export const noiseRow = () =>
  z.object({
    machine_id: id(),
    state: choice(NOISE_STATES),
    distance_m: positive(),
    db_a: anyNumber(),
  });

/** What an instrument showed with its jaws closed, or on nothing. */
export const zeroCheckRow = () =>
  z.object({
    zero_check_id: id(),
    instrument_id: id(),
    at: time(),
    value_mm: anyNumber(),
    operator: maybe(text()),
  });

/** Which parts are measured by whom, how often, to find out what an instrument is good for. */
export const gaugePlanRow = () =>
  z.object({
    gauge_plan_id: id(),
    instrument_id: id(),
    artefact_id: id(),
    dimension_id: id(),
    /** Ids of specimens, separated by blanks. */
    specimens: text(),
    /** Initials, separated by blanks. */
    operators: text(),
    trials: count(50),
  });
