export {
  checklist,
  GUIDE,
  GUIDE_REPEATS,
  guideProgress,
  STATIONS,
  stepState,
  type GuideKey,
  type StationKey,
  type Step,
  type StepKey,
  type StepState,
  type StudyWork,
} from './checklist';
