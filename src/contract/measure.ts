export type { DrawnSides } from '../server/measure/drawings';
export type { GaugeBenchData } from '../server/measure/instrument-page';
export type { BenchLadder, LadderBenchData } from '../server/measure/ladder-page';
export type {
  BenchDimension,
  BenchDrawing,
  BenchInstrument,
  BenchZero,
  MeasureBenchData,
} from '../server/measure/page';
