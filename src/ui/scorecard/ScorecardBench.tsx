import { elementOf } from '../kit/event-target';
import { useEffect, useMemo, useState, type SetStateAction, type Dispatch } from 'react';
import type { PairRow } from '../../core/statistics/compare';
import {
  shares,
  type Criterion,
  type EvidenceOfCriteria,
  type Scorecard,
} from '../../core/answers/scorecard';
import type { ContenderMark } from '../../core/model/study';
import { describeScorecard } from '../../core/text/phrasing';
import { figureWords, type FigureNames, type FigureWords } from '../../core/answers/figure-names';
import { Answer } from './Answer';
import { cardFault, freeName, nameOfCard, type OwnCard } from './cards';
import { CriterionRow } from './CriterionRow';
import { firstCurve } from './curve-edit';
import { Doubts } from './Doubts';
import { Gates } from './Gates';
import { TurningPrices } from './TurningPrices';
import { drawable, useCards, type SaveState } from './use-cards';
import { useFilled } from './use-filled';

interface ScorecardBenchProps {
  studyId: string;
  version: number;
  cards: readonly OwnCard[];
  marks: readonly ContenderMark[];
  reference: string | null;
  evidence: EvidenceOfCriteria;
  differences: Readonly<Record<string, readonly PairRow[]>>;
  names: FigureNames;
  seed: number;
}

const NO_EVIDENCE = {};

/** Cards by use: what counts how much, what is worth what, and the answer that follows, at once. */
export function ScorecardBench(props: ScorecardBenchProps) {
  const { studyId, version, marks, reference, evidence, differences, names, seed } = props;
  const { cards, state, canUndo, change, undo } = useCards(studyId, props.cards, version);
  const [chosen, setChosen] = useState(0);
  const at = Math.min(chosen, cards.length - 1);
  const card = cards[at];
  const wordsOf = (key: string) => figureWords(key, names);
  const ids = useMemo(() => marks.map((mark) => mark.contender_id), [marks]);
  const toDraw = useMemo(() => drawable(card), [card]);
  const { filled, took } = useFilled(toDraw, evidence, ids, seed);
  const known = Object.keys(evidence).map((key) => ({ key, words: wordsOf(key) }));

  const put = (next: OwnCard, mark = '') =>
    change(
      cards.map((one, place) => (place === at ? next : one)),
      mark && `${at} ${mark}`,
    );
  const add = (next: OwnCard) => {
    change([...cards, next]);
    setChosen(cards.length);
  };
  useUndoKey(undo);
  const nameOf = (id: string) => nameAmong(marks, id);
  const fault = card ? cardFault(card) : null;
  const weights = card ? shares(card.criteria) : [];
  const said =
    card && filled && fault === null
      ? describeScorecard(
          filled,
          nameOfCard(card, at),
          nameOf,
          (key) => wordsOf(key).label,
          names.currency,
        )
      : [];

  return (
    <div className="grid min-w-0 grid-cols-1 items-start gap-3 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <section className="min-w-0 sheet" aria-labelledby="what-counts">
        <CardsHead
          state={state}
          cards={cards}
          at={at}
          setChosen={setChosen}
          add={add}
          card={card}
        />
        {typeof state !== 'string' && <NotKept state={state} />}
        {card ? (
          <CardSheet
            at={at}
            card={card}
            cards={cards}
            put={put}
            canUndo={canUndo}
            undo={undo}
            change={change}
            setChosen={setChosen}
            marks={marks}
            weights={weights}
            wordsOf={wordsOf}
            evidence={evidence}
            known={known}
            fault={fault}
          />
        ) : (
          <p className="p-3">
            No scorecard yet. A scorecard says how much each figure counts for one use. Add one to
            get an answer.
          </p>
        )}
      </section>
      <CardAnswer
        card={card}
        filled={filled}
        fault={fault}
        took={took}
        said={said}
        marks={marks}
        reference={reference}
        wordsOf={wordsOf}
        differences={differences}
        evidence={evidence}
        names={names}
      />
    </div>
  );
}

interface NotKeptProps {
  state: { failed: string; isConflict: boolean };
}

/** The cards could not be saved, and why. */
function NotKept({ state }: NotKeptProps) {
  return (
    <p role="alert" className="border-b border-line bg-warn-soft px-3 py-1.5 text-warn">
      Not saved: {state.failed}{' '}
      {state.isConflict && (
        <button type="button" className="underline" onClick={() => location.reload()}>
          Read it again
        </button>
      )}
    </p>
  );
}

const nameAmong = (marks: readonly ContenderMark[], id: string): string => {
  const mark = marks.find((one) => one.contender_id === id);
  return mark ? `${mark.machineName} ${mark.variant}` : id;
};

interface CardSheetProps {
  at: number;
  card: OwnCard;
  cards: ReturnType<typeof useCards>['cards'];
  put: (next: OwnCard, mark?: string) => void;
  canUndo: boolean;
  undo: () => void;
  change: (next: readonly OwnCard[], mark?: string) => void;
  setChosen: Dispatch<SetStateAction<number>>;
  marks: ScorecardBenchProps['marks'];
  weights: number[];
  wordsOf: (key: string) => FigureWords;
  evidence: ScorecardBenchProps['evidence'];
  known: { key: string; words: FigureWords }[];
  fault: string | null;
}

/** One card: whom it is for, what counts, what must hold. */
function CardSheet({
  at,
  card,
  cards,
  put,
  canUndo,
  undo,
  change,
  setChosen,
  marks,
  weights,
  wordsOf,
  evidence,
  known,
  fault,
}: CardSheetProps) {
  return (
    <>
      <CardHead
        at={at}
        card={card}
        cards={cards}
        put={put}
        canUndo={canUndo}
        undo={undo}
        change={change}
        setChosen={setChosen}
      />
      <CriteriaList
        card={card}
        marks={marks}
        weights={weights}
        wordsOf={wordsOf}
        evidence={evidence}
        put={put}
      />
      <AddCriterion evidence={evidence} wordsOf={wordsOf} card={card} put={put} known={known} />
      <Gates
        gates={card.gates ?? []}
        known={known}
        onChange={(gates) => put({ ...card, gates: gates.map((gate) => ({ ...gate })) })}
      />
      {fault && (
        <p role="alert" className="px-3 pb-2 text-warn">
          {fault}
        </p>
      )}
    </>
  );
}

/** Ctrl Z takes the last change back, but not while something is typed. */
function useUndoKey(undo: () => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = elementOf(event);
      if (!target) return;
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
      if (target.closest('input:not([type=range]), textarea')) return;
      event.preventDefault();
      undo();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  });
}

interface CardsHeadProps {
  state: SaveState;
  cards: ReturnType<typeof useCards>['cards'];
  at: number;
  setChosen: Dispatch<SetStateAction<number>>;
  add: (next: OwnCard) => void;
  card: OwnCard | undefined;
}

/** The cards, and what can be done with them. */
function CardsHead({ state, cards, at, setChosen, add, card }: CardsHeadProps) {
  return (
    <header className="flex flex-wrap items-center gap-2 border-b border-line px-3 py-2">
      <h2 id="what-counts" className="font-semibold">
        What counts
      </h2>
      <span className="text-2xs text-ink-2" role="status">
        {typeof state === 'string'
          ? { kept: 'saved', waiting: '…', saving: 'saving …' }[state]
          : ''}
      </span>
      <span className="ml-auto flex flex-wrap gap-1.5">
        {cards.map((one, place) => (
          <button
            key={place}
            type="button"
            className={`action ${place === at ? 'action-main' : ''}`}
            aria-pressed={place === at}
            onClick={() => setChosen(place)}
          >
            {nameOfCard(one, place)}
          </button>
        ))}
        <button
          type="button"
          className="action"
          onClick={() =>
            add(
              card
                ? { ...card, name: freeName(cards, 'another use') }
                : { criteria: [], name: 'our own use' },
            )
          }
        >
          + card
        </button>
      </span>
    </header>
  );
}

interface CardHeadProps {
  at: number;
  card: OwnCard;
  cards: ReturnType<typeof useCards>['cards'];
  put: (next: OwnCard, mark?: string) => void;
  canUndo: boolean;
  undo: () => void;
  change: (next: readonly OwnCard[], mark?: string) => void;
  setChosen: Dispatch<SetStateAction<number>>;
}

/** Whom a card is for, and its mode. */
function CardHead({ at, card, cards, put, canUndo, undo, change, setChosen }: CardHeadProps) {
  return (
    <p className="flex flex-wrap items-end gap-2 border-b border-line-soft px-3 py-2 text-xs text-ink-2">
      <label>
        this card is for
        <input
          key={`${at} ${card.name ?? ''}`}
          className="block field w-48"
          defaultValue={nameOfCard(card, at)}
          maxLength={300}
          onBlur={(event) => {
            const name = event.target.value.trim();
            if (name !== '' && name !== nameOfCard(card, at)) {
              const others = cards.filter((_, place) => place !== at);
              put({ ...card, name: freeName(others, name) });
            }
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter') event.currentTarget.blur();
          }}
        />
      </label>
      <button
        type="button"
        className="action"
        data-keys="Ctrl Z"
        data-does="take the last change back"
        disabled={!canUndo}
        onClick={undo}
      >
        Undo <kbd className="key">Ctrl Z</kbd>
      </button>
      <button
        type="button"
        className="action"
        onClick={() => {
          change(cards.filter((_, place) => place !== at));
          setChosen(0);
        }}
      >
        Delete scorecard
      </button>
    </p>
  );
}

interface CriteriaListProps {
  card: OwnCard;
  marks: ScorecardBenchProps['marks'];
  weights: number[];
  wordsOf: (key: string) => FigureWords;
  evidence: ScorecardBenchProps['evidence'];
  put: (next: OwnCard, mark?: string) => void;
}

/** The criteria with their weights and curves. */
function CriteriaList({ card, marks, weights, wordsOf, evidence, put }: CriteriaListProps) {
  return (
    <ul>
      {card.criteria.map((criterion, place) => (
        <CriterionRow
          key={criterion.key}
          criterion={criterion}
          place={place}
          marks={marks}
          share={weights[place] ?? 0}
          words={wordsOf(criterion.key)}
          evidence={evidence[criterion.key] ?? NO_EVIDENCE}
          onChange={(next: Criterion, mark) =>
            put(
              {
                ...card,
                criteria: card.criteria.map((one, other) =>
                  other === place
                    ? { ...one, ...next, points: next.points.map(([x, u]) => [x, u]) }
                    : one,
                ),
              },
              mark,
            )
          }
          onRemove={() =>
            put({ ...card, criteria: card.criteria.filter((_, other) => other !== place) })
          }
        />
      ))}
    </ul>
  );
}

interface AddCriterionProps {
  evidence: ScorecardBenchProps['evidence'];
  wordsOf: (key: string) => FigureWords;
  card: OwnCard;
  put: (next: OwnCard, mark?: string) => void;
  known: { key: string; words: FigureWords }[];
}

/** One more criterion. */
function AddCriterion({ evidence, wordsOf, card, put, known }: AddCriterionProps) {
  return (
    <p className="border-b border-line-soft px-3 py-2">
      <select
        className="field w-64"
        aria-label="Add a criterion"
        value=""
        onChange={(event) => {
          const key = event.target.value;
          const own = evidence[key] ?? NO_EVIDENCE;
          const points = firstCurve(own, wordsOf(key).isLargerBetter);
          const weight = card.criteria.length === 0 ? 50 : 10;
          put({ ...card, criteria: [...card.criteria, { key, weight, points }] });
        }}
      >
        <option value="">+ criterion …</option>
        {known
          .filter(({ key }) => card.criteria.every((one) => one.key !== key))
          .map(({ key, words }) => (
            <option key={key} value={key}>
              {words.group}: {words.label}
            </option>
          ))}
      </select>
    </p>
  );
}

interface CardAnswerProps {
  card: OwnCard | undefined;
  filled: Scorecard | null;
  fault: string | null;
  took: number | null;
  said: string[];
  marks: ScorecardBenchProps['marks'];
  reference: ScorecardBenchProps['reference'];
  wordsOf: (key: string) => FigureWords;
  differences: ScorecardBenchProps['differences'];
  evidence: ScorecardBenchProps['evidence'];
  names: FigureNames;
}

/** What the card answers: who comes first, how sure that is, what would turn it. */
function CardAnswer({
  card,
  filled,
  fault,
  took,
  said,
  marks,
  reference,
  wordsOf,
  differences,
  evidence,
  names,
}: CardAnswerProps) {
  return (
    <div className="grid min-w-0 gap-3">
      {card && filled && fault === null && (
        <>
          <section className="min-w-0 sheet" aria-labelledby="the-answer">
            <header className="flex items-baseline justify-between border-b border-line px-3 py-2">
              <h2 id="the-answer" className="font-semibold">
                The answer
              </h2>
              <span className="text-xs text-ink-2" data-took={took ?? undefined}>
                {filled.draws.toLocaleString('en').replace(',', ' ')} simulations, seed{' '}
                {filled.seed}
              </span>
            </header>
            <div className="border-b border-line-soft px-3 py-2" aria-live="polite">
              {said.map((sentence, place) => (
                <p key={sentence} className={place === 0 ? 'font-medium' : 'text-ink-2'}>
                  {sentence}
                </p>
              ))}
            </div>
            <Answer filled={filled} marks={marks} reference={reference} wordsOf={wordsOf} />
          </section>
          <Doubts filled={filled} wordsOf={wordsOf} differences={differences} />
          <TurningPrices
            filled={filled}
            marks={marks}
            evidence={evidence}
            currency={names.currency}
          />
        </>
      )}
    </div>
  );
}
