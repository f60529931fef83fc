import * as z from 'zod';
import {
  DEFECTS,
  ENQUIRY_OUTCOMES,
  FEATURE_STATES,
  FOLLOW_UP_OUTCOMES,
  HEATED,
  MACHINE_CHECKS,
  MARK_ASPECTS,
  MARK_SIGNS,
  SETUP_HELP,
  SETUP_KINDS,
  SUSPECTS,
  TRIAL_FEATURES,
  TRIAL_OUTCOMES,
  VERDICT_KINDS,
} from '../catalogues';
import {
  anyNumber,
  choice,
  count,
  grade,
  id,
  maybe,
  name,
  nonNegative,
  text,
  time,
} from '../values';

/** One step of what it took until the first print. */
export const setupStepRow = () =>
  z.object({
    machine_id: id(),
    step: count(10_000),
    kind: choice(SETUP_KINDS),
    minutes: maybe(nonNegative()),
    hands_s: maybe(nonNegative()),
    snag: maybe(grade()),
    help: maybe(choice(SETUP_HELP)),
    at: maybe(time()),
    what: text(),
    note: maybe(text()),
  });

/** A value found at a machine, against its limits. */
export const checkRow = () =>
  z.object({
    machine_id: id(),
    check_id: id(),
    what: choice(MACHINE_CHECKS),
    value: maybe(anyNumber()),
    unit: maybe(text()),
    lower: maybe(anyNumber()),
    upper: maybe(anyNumber()),
    method: maybe(text()),
    at: maybe(time()),
    note: maybe(text()),
  });

/** How long a machine took to heat something up. */
export const heatUpRow = () =>
  z.object({
    machine_id: id(),
    what: choice(HEATED),
    from_c: anyNumber(),
    to_c: anyNumber(),
    seconds: nonNegative(),
    ambient_c: maybe(anyNumber()),
    at: maybe(time()),
  });

/** A fault provoked or a feature used on purpose, and how the machine answered. */
export const trialRow = () =>
  z.object({
    trial_id: id(),
    machine_id: id(),
    feature: choice(TRIAL_FEATURES),
    provoked: text(),
    expected: maybe(text()),
    observed: maybe(text()),
    outcome: choice(TRIAL_OUTCOMES),
    delay_s: maybe(nonNegative()),
    waste_g: maybe(nonNegative()),
    at: maybe(time()),
    operator: maybe(text()),
    note: maybe(text()),
  });

/** Something said for or against a machine. */
export const markRow = () =>
  z.object({
    machine_id: id(),
    aspect: choice(MARK_ASPECTS),
    sign: choice(MARK_SIGNS),
    value: maybe(
      z
        .number({ error: 'must be a number' })
        .min(0, 'must be from 0 to 10')
        .max(10, 'must be from 0 to 10')
        .meta({ cell: 'number' }),
    ),
    text: text(),
    evidence: maybe(text()),
    operator: maybe(text()),
    at: maybe(time()),
  });

/** What a machine needs to print a type of material. */
export const materialNoteRow = () =>
  z.object({
    machine_id: id(),
    type: name(),
    needs: maybe(text()),
    text: maybe(text()),
  });

/** What a machine has, lacks, or has at extra cost. */
export const featureRow = () =>
  z.object({
    machine_id: id(),
    feature: name(),
    state: choice(FEATURE_STATES),
    price: maybe(nonNegative()),
    note: maybe(text()),
  });

/** What was asked of a maker, and what came of it. */
export const enquiryRow = () =>
  z.object({
    enquiry_id: id(),
    machine_id: id(),
    at: time(),
    matter: text(),
    incident_id: maybe(id()),
    answered_at: maybe(time()),
    outcome: choice(ENQUIRY_OUTCOMES),
    firmware: maybe(text()),
    note: maybe(text()),
  });

/** A statement from elsewhere: shown apart, never computed with. */
export const borrowedRow = () =>
  z.object({
    borrowed_id: id(),
    machine_id: id(),
    source: text(),
    address: maybe(text()),
    at: maybe(time()),
    statement: text(),
    quantity: maybe(text()),
    value: maybe(anyNumber()),
    unit: maybe(text()),
    trust: maybe(grade()),
  });

/** A print after one that went wrong: what was suspected and changed, and what came of it. */
export const followUpRow = () =>
  z.object({
    follow_up_id: id(),
    print_before: id(),
    print_after: id(),
    suspect: choice(SUSPECTS),
    changed: text(),
    outcome: choice(FOLLOW_UP_OUTCOMES),
    finding: maybe(choice(DEFECTS)),
    note: maybe(text()),
  });

/** A sentence of the answer, and the figures that it rests on. */
export const verdictRow = () =>
  z.object({
    verdict_id: id(),
    contender_id: maybe(id()),
    kind: choice(VERDICT_KINDS),
    order: count(),
    text: text(),
    evidence: maybe(text()),
  });

/** A figure that a sentence rests on, as it stood when the sentence was written. */
export const verdictFigureRow = () =>
  z.object({
    verdict_id: id(),
    address: text(),
    value: maybe(anyNumber()),
    low: maybe(anyNumber()),
    high: maybe(anyNumber()),
    word: maybe(text()),
  });
