import * as z from 'zod';
import {
  EQUIPMENT_KINDS,
  KINEMATICS,
  MACHINE_CHANGES,
  OBTAINED,
  PROFILE_KINDS,
  PROFILE_ORIGINS,
} from '../catalogues';
import {
  badgeLetter,
  choice,
  currency,
  dayOrTime,
  id,
  maybe,
  name,
  nonNegative,
  positive,
  text,
  time,
  uid,
} from '../values';

/** One physical printer as it stands in the study. */
export const machineRow = () =>
  z.object({
    machine_id: id(),
    name: text(),
    maker: maybe(text()),
    kinematics: maybe(choice(KINEMATICS)),
    build_x_mm: maybe(positive()),
    build_y_mm: maybe(positive()),
    build_z_mm: maybe(positive()),
    nozzle_mm: maybe(positive()),
    claimed_speed_mm_s: maybe(nonNegative()),
    claimed_accel_mm_s2: maybe(nonNegative()),
    max_flow_mm3_s: maybe(nonNegative()),
    price_list: maybe(nonNegative()),
    price_paid: maybe(nonNegative()),
    currency: maybe(currency()),
    obtained: maybe(choice(OBTAINED)),
    firmware: maybe(text()),
    /** With what must stand around it. */
    outer_x_mm: maybe(positive()),
    outer_y_mm: maybe(positive()),
    outer_z_mm: maybe(positive()),
    mass_kg: maybe(positive()),
    power_w: maybe(nonNegative()),
    /** Printed before the study's first print. */
    hours_before: maybe(nonNegative()),
    /** When a loan ends. */
    return_by: maybe(dayOrTime()),
    serial: maybe(text()),
    uid: maybe(uid()),
    /** The letter of its badge, where it was given one. */
    letter: maybe(badgeLetter()),
  });

/** The slicing settings used: as the maker ships them, or changed from a stock parent. */
export const profileRow = () =>
  z.object({
    profile_id: id(),
    name: text(),
    kind: choice(PROFILE_KINDS),
    parent_id: maybe(id()),
    slicer: maybe(text()),
    slicer_version: maybe(text()),
    origin: maybe(choice(PROFILE_ORIGINS)),
    source: maybe(text()),
    got_at: maybe(dayOrTime()),
    notes: maybe(text()),
    uid: maybe(uid()),
  });

/** One setting of a profile, by its normalised key. */
export const profileSettingRow = () =>
  z.object({
    profile_id: id(),
    key: name(),
    value: text(),
  });

/** One lot of filament. */
export const materialRow = () =>
  z.object({
    material_id: id(),
    type: text(),
    maker: maybe(text()),
    colour: maybe(text()),
    lot: maybe(text()),
    diameter_mm: maybe(positive()),
    density_g_cm3: maybe(positive()),
    price_per_kg: maybe(nonNegative()),
    currency: maybe(currency()),
    uid: maybe(uid()),
  });

/** A machine with a profile, as it stands in the line-up. */
export const contenderRow = () =>
  z.object({
    contender_id: id(),
    label: text(),
    machine_id: id(),
    profile_id: id(),
    /** What all its prints are in; of a study that compares materials. */
    material_id: maybe(id()),
    change: maybe(text()),
  });

/** A difference between two contenders that a person accepts, with the reason. */
export const acceptedDifferenceRow = () =>
  z.object({
    contender_id: id(),
    reference_id: id(),
    artefact_id: id(),
    item: name(),
    reason: text(),
    operator: maybe(text()),
    at: maybe(time()),
  });

/** Something bought beside a machine: needed to print at all, worn out, an extra, its delivery. */
export const equipmentRow = () =>
  z.object({
    machine_id: id(),
    item: text(),
    kind: choice(EQUIPMENT_KINDS),
    price: nonNegative(),
    currency: maybe(currency()),
    at: maybe(dayOrTime()),
    note: maybe(text()),
  });

/** One spool of a lot: what was on it, and when it was dried. */
export const spoolRow = () =>
  z.object({
    spool_id: id(),
    material_id: id(),
    mass_g: positive(),
    opened_at: maybe(time()),
    dried_at: maybe(time()),
    dried_c: maybe(positive()),
    dried_h: maybe(positive()),
    notes: maybe(text()),
  });

/** Something that was changed on a machine: results before it and after it may differ. */
export const machineChangeRow = () =>
  z.object({
    change_id: id(),
    machine_id: id(),
    at: time(),
    kind: choice(MACHINE_CHANGES),
    what: text(),
    operator: maybe(text()),
  });
