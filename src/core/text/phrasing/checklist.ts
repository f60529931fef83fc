import { GUIDE_REPEATS, type GuideKey, type Step, type StepKey } from '../../answers/checklist';

/** A step in words: what it is called, what to do, and the page of the study where that is done. */
export interface StepWords {
  name: string;
  todo: string;
  /** Below the study's address. */
  at: string;
}

const STEPS: Readonly<Record<StepKey, StepWords>> = {
  question: {
    name: 'Question',
    todo: 'Write the question as your readers would ask it',
    at: 'question#question',
  },
  difference: {
    name: 'Difference that matters',
    todo: 'State the smallest difference that matters',
    at: 'question#accuracy_mm',
  },
  reference: {
    name: 'Reference',
    todo: 'Choose the contender that the others are compared with',
    at: 'question#reference',
  },
  contenders: {
    name: 'Contenders',
    todo: 'Add at least two contenders',
    at: 'line-up',
  },
  artefact: {
    name: 'Artefact',
    todo: 'Add the part that every contender prints',
    at: 'artefacts',
  },
  plan: {
    name: 'Planned artefacts',
    todo: 'Plan how often each artefact is printed',
    at: 'plan',
  },
  prints: { name: 'Prints', todo: 'Record the planned prints', at: 'runs' },
  features: {
    name: 'Dimensions and zones',
    todo: 'Add dimensions to measure or zones to inspect',
    at: 'artefacts',
  },
  readings: { name: 'Readings', todo: 'Measure the printed parts', at: 'measure' },
  zones: { name: 'Inspected zones', todo: 'Inspect the printed parts', at: 'inspect' },
  evidence: {
    name: 'First results',
    todo: 'Measure or inspect one printed part',
    at: 'measure',
  },
  scorecard: {
    name: 'Scorecard',
    todo: 'Make a scorecard that weighs the figures',
    at: 'results/scorecard',
  },
  answer: {
    name: 'Answer',
    todo: 'Add the sentence that answers the question',
    at: 'report',
  },
  disclosure: {
    name: 'Disclosure',
    todo: 'State who paid and who lent the machines',
    at: 'report',
  },
  publish: { name: 'Published report', todo: 'Publish the report', at: 'report' },
};

/** What a step is called, what to do, and where. */
export const stepInWords = ({ key }: Pick<Step, 'key'>): StepWords => STEPS[key];

/** A step of the guided first study, explained. */
export interface GuideWords {
  title: string;
  /** What to do, one action a sentence. */
  todo: string;
  /** Why it is done, for somebody who knows printers and no statistics. */
  why: string;
  at: string;
}

const GUIDE_WORDS: Readonly<Record<GuideKey, GuideWords>> = {
  question: {
    title: 'Write the question',
    todo: 'Write one question, such as “Which of my two profiles prints holes closer to size?”',
    why: 'Everything you do later answers this question. Your readers see it first.',
    at: 'question#question',
  },
  difference: {
    title: 'State what difference matters',
    todo: 'Type 0.05 into “Accuracy (mm)”, or take one of the proposals.',
    why: 'Two machines are never exactly equal. This number says when a difference is worth talking about.',
    at: 'question#accuracy_mm',
  },
  contenders: {
    title: 'Add two contenders',
    todo: 'Type the name of a machine into “+ a machine” at the top right and press Enter. Then add another one.',
    why: 'A contender is a machine with a profile. The study compares contenders.',
    at: 'line-up',
  },
  reference: {
    title: 'Choose the reference',
    todo: 'Choose one of your contenders as the reference.',
    why: 'Every verdict compares a contender with the reference: “more accurate than …”.',
    at: 'question#reference',
  },
  part: {
    title: 'Add a part with one dimension',
    todo:
      'Type “Cube” into “+ a part” and press Enter. Open it. Add the dimension “width” with axis x, ' +
      'kind external and a nominal size of 20 mm.',
    why: 'Every contender prints the same part, so that only the contenders differ.',
    at: 'line-up',
  },
  plan: {
    title: `Plan ${GUIDE_REPEATS} prints each`,
    todo: `Type ${GUIDE_REPEATS} for each contender. A material is needed first: add it in the line-up.`,
    why: 'One print shows what happened once. Three show how much a machine differs from itself.',
    at: 'plan',
  },
  prints: {
    title: 'Record the prints',
    todo:
      'Press S to start a print, and end it when it is done. For practice, choose “It is over already” ' +
      'and the outcome “success”, six times.',
    why: 'Failures count too: a print that fails is a result.',
    at: 'runs',
  },
  readings: {
    title: 'Measure the parts',
    todo:
      'Type what the caliper shows. Without parts at hand, type 20.03, 20.05 and 20.04 for one ' +
      'contender and 20.14, 20.11 and 20.13 for the other.',
    why: 'The readings of one contender differ a little. A difference between contenders must be larger than that.',
    at: 'measure',
  },
  verdict: {
    title: 'Read the verdict',
    todo: 'Open “Accuracy”, read the verdict, and add a sentence with your answer to the report.',
    why:
      'A verdict says which contender is better, by how much, and how sure that is. “Too close to call” ' +
      'means that more prints are needed.',
    at: 'results/accuracy',
  },
  close: {
    title: 'Put the practice study away',
    todo: 'Archive the study here. You find it in the archive of “Studies”, and can delete it there.',
    why: 'Its prints are practice. An archived study stays out of your lists.',
    at: 'results/glance',
  },
};

export const guideInWords = (key: GuideKey): GuideWords => GUIDE_WORDS[key];
