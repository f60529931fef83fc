import * as z from 'zod';

const positive = z.number().positive();
const axes = z.strictObject({
  x: positive.optional(),
  y: positive.optional(),
  z: positive.optional(),
  e: positive.optional(),
});

/** What is known of a machine's limits; all of it optional. */
export const machineRecordSchema = z.strictObject({
  claimed_speed_mm_s: positive.optional(),
  max_flow_mm3_s: positive.optional(),
  max_speed_mm_s: axes.optional(),
  max_accel_mm_s2: axes.optional(),
  accel_print: positive.optional(),
  accel_travel: positive.optional(),
  accel_retract: positive.optional(),
  junction_deviation_mm: positive.optional(),
  jerk_mm_s: axes.optional(),
});

export type MachineRecord = z.infer<typeof machineRecordSchema>;
