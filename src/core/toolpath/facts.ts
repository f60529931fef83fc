import type { AxisName, Limit } from './limits';
import type { SelfReport } from './notes';
import type { SettingValue } from '../model/study';

export interface BadLine {
  line: number;
  text: string;
  why: string;
}

export interface SpeedFacts {
  commanded_max: number | null;
  commanded_p50: number | null;
  commanded_p95: number | null;
  reached_max: number | null;
  reached_p50: number | null;
  reached_p95: number | null;
  at_commanded_share: number | null;
  histogram: { bin_mm_s: 10; commanded_s: number[]; reached_s: number[] };
}

export interface FlowFacts {
  commanded_max: number | null;
  commanded_p95: number | null;
  reached_max: number | null;
  reached_p95: number | null;
  reached_p50: number | null;
  histogram: { bin_mm3_s: 1; reached_s: number[] };
}

/** What a machine claims, what the file asks for, and what is reached. */
export interface ClaimFacts {
  claimed: number;
  commanded_max: number | null;
  reached_max: number | null;
  share_within_5pct: number | null;
  flow_needed_mm3_s: number | null;
  flow_limit_mm3_s: number | null;
  held_back_by: 'file' | 'acceleration' | 'flow' | null;
  notes: string[];
}

/** What a sliced file asks of a machine, and what the machine can reach of it. */
export interface ToolpathFacts {
  file: string;
  bytes: number;
  lines: number;
  bad_lines: BadLine[];
  bad_line_count: number;
  limits: Record<string, Limit | Partial<Record<AxisName, Limit>>>;
  time_s: number;
  constant_speed_s: number;
  time_by_role_s: Record<string, number>;
  time_by_layer_s: number[];
  /** Layer by layer: its top, mm; its mean flow while it extrudes, mm³/s; null where not known. */
  layer_tops_mm: (number | null)[];
  flow_by_layer_mm3_s: (number | null)[];
  dwell_s: number;
  held_back_s: { command: number; axis_speed: number; acceleration: number; corner: number };
  layers: number;
  layer_heights_mm: {
    first: number | null;
    median: number | null;
    min: number | null;
    max: number | null;
  };
  bbox_mm: { min: number[]; max: number[] } | null;
  filament_mm: number;
  filament_mm3: number;
  filament_g: number | null;
  travel_mm: number;
  extruded_path_mm: number;
  retractions: number;
  retract_mm: number;
  tool_changes: number;
  purge_mm3: number | null;
  speed: SpeedFacts;
  speed_by_role: Record<
    string,
    {
      commanded_p50: number | null;
      reached_p50: number | null;
      commanded_max: number;
      time_s: number;
    }
  >;
  flow: FlowFacts;
  accelerations_seen: number[];
  temperatures: { nozzle_c: number[]; bed_c: number[] };
  fan_max_share: number;
  settings: Record<string, SettingValue>;
  settings_raw_count: number;
  annotated: SelfReport;
  claim: ClaimFacts | null;
  notes: string[];
}
