export type { DefectSide } from '../server/results/defect-places';
export type { FoundEvidence } from '../server/results/evidence';
export type { DuelFigure } from '../server/results/head-to-head-page';
export type { PlatePage, PlatePoint } from '../server/results/plate-page';
export type { MethodExample } from '../server/results/method-example';
