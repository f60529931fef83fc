import { lightInWords } from '../../../core/answers/figure-names';
import { inWords } from '../../../core/model/study';
import type { Subject } from './subjects';
import type { SideBySideModel } from './use-side-by-side';

interface SightHeadProps {
  subject: Subject;
  sight: SideBySideModel;
}

/** What is compared, and the keys that change how it is looked at. */
export function SightHead({ subject, sight }: SightHeadProps) {
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2">
      <h1 className="text-lg font-semibold">Side by side</h1>
      <select
        className="field w-auto"
        aria-label="What is compared"
        value={subject.key}
        onChange={(event) => sight.turnTo(event.target.value)}
      >
        {sight.subjects.map((one) => (
          <option key={one.key} value={one.key}>
            {one.artefact}, {inWords(one.view)}, {lightInWords(one.light)} ({one.photos.length})
          </option>
        ))}
      </select>
      <span className="text-xs text-ink-2">
        one scale{sight.scale > 0 && `, ${sight.scale.toFixed(0)} px/mm`}
        {sight.isMatched && ' · brightness matched to their mean, for the eye only'}
        {sight.isStrong && ' · contrast raised, for the eye only'}
      </span>
      <span className="ml-auto flex flex-wrap gap-1">
        <Toggle
          label="Blink"
          shown="space"
          keys="Space"
          isOn={sight.mode === 'blink'}
          onClick={() => sight.choose('blink')}
        />
        <Toggle
          label="Split"
          keys="\"
          isOn={sight.mode === 'split'}
          onClick={() => sight.choose('split')}
        />
        <Toggle
          label="Difference"
          keys="D"
          isOn={sight.mode === 'difference'}
          onClick={() => sight.choose('difference')}
        />
        <Toggle label="Match grey" keys="G" isOn={sight.isMatched} onClick={sight.turnMatched} />
        <Toggle label="Contrast" keys="K" isOn={sight.isStrong} onClick={sight.turnStrong} />
        <Toggle label="Loupe" keys="L" isOn={sight.hasLoupe} onClick={sight.turnLoupe} />
        <Toggle label="Zones" keys="Z" isOn={sight.hasZones} onClick={sight.turnZones} />
        <Toggle label="Hide names" keys="B" isOn={sight.order !== null} onClick={sight.hide} />
        <Toggle
          label="Region"
          keys="R"
          isOn={sight.isDrawing}
          onClick={() => sight.setDrawing(!sight.isDrawing)}
        />
        <button
          type="button"
          className="action"
          data-keys="0"
          data-does="show all of it"
          onClick={() => sight.fit(subject)}
        >
          All <kbd className="key">0</kbd>
        </button>
      </span>
    </div>
  );
}

const Toggle = ({ label, keys, shown, isOn, onClick }: ToggleProps) => (
  <button
    type="button"
    className="action aria-pressed:bg-plum-soft aria-pressed:font-semibold"
    aria-pressed={isOn}
    data-keys={keys}
    data-does={label.toLowerCase()}
    onClick={onClick}
  >
    {label} <kbd className="key">{shown ?? keys}</kbd>
  </button>
);

interface ToggleProps {
  label: string;
  keys: string;
  shown?: string;
  isOn: boolean;
  onClick: () => void;
}
