export type { DeskLine, RunningPrint, ShownTask } from '../server/desk/desk';
export type { StudyAnswer } from '../server/results/answer';
