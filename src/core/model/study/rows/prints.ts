import * as z from 'zod';
import {
  CAUSES,
  EVENT_SOURCES,
  FILAMENT_FROM,
  HOLDS,
  INCIDENT_MODES,
  OUTCOMES,
  PLATE_AIDS,
  PLATE_CLEANED,
  PLATE_SURFACES,
  PRINT_EVENTS,
  RELEASES,
} from '../catalogues';
import {
  anyNumber,
  choice,
  count,
  grade,
  id,
  maybe,
  MOST_COPIES,
  MOST_PLANNED,
  MOST_REPEATS,
  nonNegative,
  path,
  percent,
  positive,
  text,
  time,
  turn,
  wholeFromZero,
} from '../values';

/** More slots than any machine has. */
const MOST_SLOTS = 64;

/** One attempt to print an artefact with a contender, ended. */
export const printRow = () =>
  z.object({
    print_id: id(),
    contender_id: id(),
    artefact_id: id(),
    material_id: id(),
    repeat: count(MOST_REPEATS),
    order: maybe(count()),
    started_at: maybe(time()),
    ended_at: maybe(time()),
    estimate_s: maybe(positive()),
    heat_s: maybe(nonNegative()),
    print_s: maybe(positive()),
    paused_s: maybe(nonNegative()),
    filament_g: maybe(nonNegative()),
    waste_g: maybe(nonNegative()),
    filament_m: maybe(nonNegative()),
    energy_wh: maybe(nonNegative()),
    outcome: choice(OUTCOMES),
    progress_pct: maybe(percent()),
    firmware: maybe(text()),
    plate: maybe(text()),
    nozzle_mm: maybe(positive()),
    /** As the machine says it. */
    speed_mode: maybe(text()),
    /** Where `filament_g` comes from. */
    filament_from: maybe(choice(FILAMENT_FROM)),
    ambient_c: maybe(anyNumber()),
    humidity_pct: maybe(percent()),
    noise_db: maybe(anyNumber()),
    noise_distance_m: maybe(positive()),
    operator: maybe(text()),
    toolpath: maybe(path()),
  });

/** A print that has been started and has not ended: it has no outcome and counts nowhere yet. */
export const openPrintRow = () => printRow().omit({ outcome: true });

/** Something that went wrong or needed a hand. */
export const incidentRow = () =>
  z.object({
    incident_id: id(),
    machine_id: id(),
    print_id: maybe(id()),
    at: maybe(time()),
    progress_pct: maybe(percent()),
    mode: choice(INCIDENT_MODES),
    cause: choice(CAUSES),
    action: maybe(text()),
    downtime_s: maybe(nonNegative()),
    hands_s: maybe(nonNegative()),
    note: maybe(text()),
  });

/** One part that came off the plate. */
export const specimenRow = () =>
  z.object({
    specimen_id: id(),
    print_id: id(),
    copy: maybe(count(MOST_COPIES)),
    plate_x_mm: maybe(anyNumber()),
    plate_y_mm: maybe(anyNumber()),
    /** How far it is turned about z, degrees. */
    angle_deg: maybe(turn()),
    code: maybe(text()),
  });

/** One of the materials of a print, by the slot that it comes from. */
export const printMaterialRow = () =>
  z.object({
    print_id: id(),
    slot: count(MOST_SLOTS),
    material_id: id(),
    /** All that left the spool, what was purged too. */
    filament_g: maybe(nonNegative()),
    purge_g: maybe(nonNegative()),
    changes: maybe(wholeFromZero()),
  });

/** How a print held to its plate, and came off it. */
export const plateUseRow = () =>
  z.object({
    print_id: id(),
    surface: maybe(choice(PLATE_SURFACES)),
    aid: maybe(choice(PLATE_AIDS)),
    coats: maybe(nonNegative()),
    cleaned: maybe(choice(PLATE_CLEANED)),
    hold: choice(HOLDS),
    lift_mm: maybe(nonNegative()),
    /** How warm the plate was when the part was taken off. */
    part_c: maybe(anyNumber()),
    release: maybe(choice(RELEASES)),
    release_s: maybe(nonNegative()),
    damage: maybe(grade()),
    underside: maybe(grade()),
  });

/** What is to be printed: how often a contender prints an artefact, in what, from which file. */
export const plannedRow = () =>
  z.object({
    contender_id: id(),
    artefact_id: id(),
    material_id: id(),
    /** So many and no more: each makes a place of the run order. */
    repeats: count(MOST_PLANNED),
    toolpath: maybe(path()),
  });

/** What happened to a print while it ran, by a person's word or by the bench link. */
export const printEventRow = () =>
  z.object({
    event_id: id(),
    print_id: id(),
    at: time(),
    kind: choice(PRINT_EVENTS),
    source: choice(EVENT_SOURCES),
    operator: maybe(text()),
  });

/** A picture of what went wrong. */
export const incidentPhotoRow = () =>
  z.object({
    incident_id: id(),
    path: path(),
    taken_at: maybe(time()),
  });
