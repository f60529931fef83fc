import { describe, expect, it } from 'vitest';
import { checklist, GUIDE, guideProgress, stepState, type StepKey, type StudyWork } from './index';

const EMPTY: StudyWork = {
  hasQuestion: false,
  hasReference: false,
  hasDifference: false,
  contenders: 0,
  artefacts: 0,
  artefactsPlanned: 0,
  dimensions: 0,
  zones: 0,
  prints: 0,
  printsPlanned: 0,
  readings: 0,
  readingsNeeded: 0,
  zonesInspected: 0,
  zonesNeeded: 0,
  needsScorecard: true,
  hasScorecard: false,
  answers: 0,
  hasDisclosure: false,
  published: 0,
};

const states = (work: Partial<StudyWork>) =>
  Object.fromEntries(
    checklist({ ...EMPTY, ...work }).map((step) => [step.key, stepState(step)]),
  ) as Partial<Record<StepKey, string>>;

describe('the checklist of a study', () => {
  it('opens an empty study with its question and leaves readings for later', () => {
    expect(states({})).toEqual({
      question: 'open',
      difference: 'open',
      reference: 'open',
      contenders: 'open',
      artefact: 'open',
      prints: 'later',
      readings: 'later',
      zones: 'later',
      evidence: 'open',
      scorecard: 'open',
      answer: 'open',
      disclosure: 'open',
      publish: 'open',
    });
  });

  it('wants no scorecard of a study that has another answer', () => {
    expect(states({ needsScorecard: false }).scorecard).toBeUndefined();
  });

  it('wants two contenders, and counts all there are', () => {
    const of = (contenders: number) =>
      checklist({ ...EMPTY, contenders }).find(({ key }) => key === 'contenders');
    expect(of(1)).toMatchObject({ done: 1, due: 2 });
    expect(of(5)).toMatchObject({ done: 5, due: 5 });
  });

  it('asks for a plan of every artefact once there is one', () => {
    expect(states({ artefacts: 2, artefactsPlanned: 1, dimensions: 4 }).plan).toBe('open');
    expect(states({ artefacts: 2, artefactsPlanned: 2, dimensions: 4 }).plan).toBe('done');
  });

  it('asks for dimensions or zones where an artefact has neither', () => {
    expect(states({ artefacts: 1 }).features).toBe('open');
    expect(states({ artefacts: 1, zones: 1 }).features).toBeUndefined();
    expect(states({ artefacts: 1, zones: 1 }).readings).toBe('later');
  });

  it('calls a station done when its last print, reading or zone is entered', () => {
    const work = { prints: 6, printsPlanned: 6, readings: 11, readingsNeeded: 12 };
    expect(states(work)).toMatchObject({ prints: 'done', readings: 'open', evidence: 'done' });
    expect(states({ ...work, readings: 12 }).readings).toBe('done');
  });
});

describe('the guided first study', () => {
  it('has ten steps, and none is done in an empty study', () => {
    expect(GUIDE).toHaveLength(10);
    const done = guideProgress(EMPTY, false);
    expect(GUIDE.filter((key) => done[key])).toEqual([]);
  });

  it('wants three prints of each contender, all made, and every dimension read', () => {
    const work = { ...EMPTY, contenders: 2, printsPlanned: 5, prints: 5, readingsNeeded: 6 };
    expect(guideProgress(work, false)).toMatchObject({
      plan: false,
      prints: true,
      readings: false,
    });
    const whole = { ...work, printsPlanned: 6, readings: 6 };
    expect(guideProgress(whole, false)).toMatchObject({
      plan: true,
      prints: false,
      readings: true,
    });
  });

  it('ends when the study is archived', () => {
    expect(guideProgress(EMPTY, true).close).toBe(true);
  });
});
