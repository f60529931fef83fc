import { inWords } from '../../../core/model/study';
import type { BenchZone } from '../../../contract/inspect';
import { defectsFor } from './defect-search';
import { FoundHere } from './FoundHere';
import { GradeLook } from './GradeLook';
import { GRADES } from './grades';
import type { Inspecting } from './use-inspecting';

interface GradeKeysProps {
  bench: Inspecting;
}

/** The grades, each with how the defect looks at it. */
function GradeKeys({ bench }: GradeKeysProps) {
  const candidate = bench.candidates[bench.chosen];
  return (
    <div className="mt-2 grid grid-cols-2 gap-1.5 sm:grid-cols-5" role="group" aria-label="Grade">
      {GRADES.map(({ grade: value, word: name, meaning }) => (
        <button
          key={value}
          type="button"
          className="action min-h-[44px] flex-col items-start justify-start gap-0 py-1 text-left whitespace-normal"
          data-keys={String(value)}
          data-does={`grade ${value}: ${name}`}
          disabled={candidate === undefined}
          onClick={() => candidate && bench.grade(candidate, value)}
        >
          {candidate && <GradeLook defect={candidate} grade={value} />}
          <span>
            <kbd className="key">{value}</kbd> {name}
          </span>
          <span className="text-2xs font-normal text-ink-2">{meaning}</span>
        </button>
      ))}
    </div>
  );
}

interface DefectChoiceProps {
  bench: Inspecting;
}

/** The defects that begin with what was typed. */
function DefectChoice({ bench }: DefectChoiceProps) {
  return (
    <ul className="flex min-h-9 flex-wrap gap-1" aria-label="Defects">
      {(bench.typed === '' ? defectsFor('') : bench.candidates).map((defect, at) => (
        <li key={defect}>
          <button
            type="button"
            aria-pressed={bench.typed !== '' && at === bench.chosen}
            className={`min-h-[28px] rounded-sm border px-2 text-xs ${
              bench.typed !== '' && at === bench.chosen ? 'border-plum bg-plum-soft' : 'border-line'
            }`}
            onClick={() => bench.choose(defect)}
          >
            {inWords(defect)}
          </button>
        </li>
      ))}
      {bench.typed !== '' && bench.candidates.length === 0 && (
        <li className="text-warn">No defect begins with “{bench.typed}”.</li>
      )}
    </ul>
  );
}

interface ZoneSheetProps {
  bench: Inspecting;
  zone: BenchZone;
  specimen: NonNullable<Inspecting['specimen']>;
}

/** The zone at hand: what is found in it. */
export function ZoneSheet({ bench, zone, specimen }: ZoneSheetProps) {
  return (
    <section className="sheet p-3" aria-labelledby="present-zone" aria-busy={!bench.words.isReady}>
      <h2 id="present-zone" className="font-semibold">
        {zone.name} <span className="font-normal text-ink-2">{specimen.artefact}</span>
      </h2>
      {/* Grades replace what is there: they wait until that is known. */}
      <fieldset disabled={!bench.words.isReady} className="contents">
        <p className="mt-2 flex min-h-10 flex-wrap items-center gap-2">
          <span className="text-xs text-ink-2">defect</span>
          <output className="min-w-24 border-b-2 border-plum px-1 font-mono text-lg">
            {bench.typed || <span className="text-sm text-ink-2">type its first letters</span>}
          </output>
          <button
            type="button"
            className="action md:ml-auto"
            data-keys="C"
            data-does="the zone is clean"
            onClick={bench.clean}
          >
            Clean <kbd className="key">C</kbd>
          </button>
          <button
            type="button"
            className="action"
            data-keys="⌫"
            data-does="take the last word back"
            onClick={bench.undo}
          >
            Undo <kbd className="key">⌫</kbd>
          </button>
        </p>
        <DefectChoice bench={bench} />
        <GradeKeys bench={bench} />
        <FoundHere
          word={bench.word}
          onChange={(next) => bench.words.say(bench.specimenId, zone.zone_id, next)}
        />
      </fieldset>
      <p role="status" className="mt-2 min-h-5 text-warn">
        {bench.words.message ||
          (bench.words.isReady ? bench.hint : 'Loading your grades. Keys work in a moment.')}
      </p>
    </section>
  );
}
