import type { OrRefused } from '../../core/model/faults';
import type { ReportModel, RevisionFigures } from '../../core/text/report';

/** Photos of one place, each cut to it: pictures on disk, their marks, and where they go. */
export interface FrameTask {
  box: { x: number; y: number; w: number; h: number };
  frames: readonly {
    /** Path of the picture on disk. */
    source: string;
    marks: readonly { u_px: number; v_px: number; x_mm: number; y_mm: number }[];
    /** Name in the report. */
    file: string;
  }[];
}

/** What a thread does for a report. `model` names the file in which the model lies: it is large. */
export type ReportTask =
  | {
      do: 'model';
      /** The frozen package on disk. */
      data: string;
      number: number;
      frozenAt: string;
      /** The revision that it is compared with. */
      before: RevisionFigures | null;
      /** Where the model is written, for the threads that write the forms. */
      into: string;
    }
  | { do: 'frames'; folder: string; places: readonly FrameTask[] }
  /** Writes the page of a report with all that it shows, and its Markdown; photos are there already. */
  | { do: 'page'; folder: string; model: string }
  /** Draws its cards. */
  | { do: 'cards'; folder: string; model: string };

export type ReportOutcome = OrRefused<
  | { model: ReportModel; figures: RevisionFigures }
  /** Photos that could not be shown, with the reason. */
  | { notes: string[] }
  | { written: string[] }
>;
