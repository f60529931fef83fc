import { chosenOf } from '../../kit/chosen';
import { useState, type SetStateAction, type Dispatch } from 'react';
import type { PhotoMeasure, ViewBox, ContenderSettings } from '../../../core/measures/image';
import { PHOTO_MEASURES, inWords } from '../../../core/model/study';
import { callApi } from '../../kit/request';
import { useKeys } from '../../kit/use-keys';
import { describeMeasure } from '../describe-measure';
import type { RectifiedPhoto } from '../tiles';
import type { ShownMeasure } from '../../../contract/photos';

interface MeasureHereProps {
  studyId: string;
  region: ViewBox | null;
  settings: Record<string, ContenderSettings>;
  shown: readonly { photo: RectifiedPhoto; contender: string; code: string }[];
  /** Names are hidden: what would tell them is not shown. */
  isBlind: boolean;
  onRegion: (region: ViewBox | null) => void;
  onDraw: () => void;
  change: (work: () => Promise<unknown>) => Promise<boolean>;
  message: string;
}

/** What each measure asks of its region. */
const ADVICE: Readonly<Record<PhotoMeasure, string>> = {
  ringing:
    'behind an edge, from where the edge has ended, away from it to the right; a wall in raking light',
  'layer-lines': 'a plain wall, layers level',
  strings: 'between two bodies before a plain background, without the bodies',
  gaps: 'a flat face',
  texture: 'any face; only photos of the same light can be compared',
};

/** A region of the view, measured on all photos that are shown, each with what its profile says. */
export function MeasureHere({
  studyId,
  region,
  settings,
  shown,
  isBlind,
  onRegion,
  onDraw,
  change,
  message,
}: MeasureHereProps) {
  const [measure, setMeasure] = useState<PhotoMeasure>('ringing');
  const [feature, setFeature] = useState('');
  const [isMeasuring, setMeasuring] = useState(false);
  const base = `/studies/${studyId}/photos/measures`;
  const isReady = region !== null && region.w > 0.2 && region.h > 0.2;
  const run = async () => {
    if (!region || !isReady || isBlind || isMeasuring || shown.length === 0) return;
    setMeasuring(true);
    await change(() =>
      callApi('POST', base, {
        measure,
        unit: 'mm',
        x: rounded(region.x),
        y: rounded(region.y),
        w: rounded(region.w),
        h: rounded(region.h),
        feature: feature.trim() || null,
        photos: shown.map(({ photo, contender }) => ({
          path: photo.path,
          ...(measure === 'layer-lines' && {
            layer_height_mm: settings[contender]?.layer_height_mm ?? null,
          }),
          ...(measure === 'ringing' && { speed_mm_s: settings[contender]?.speed_mm_s ?? null }),
        })),
      }),
    );
    setMeasuring(false);
  };
  useKeys((event) => (event.key.toLowerCase() === 'm' && !event.altKey ? () => void run() : null));
  return (
    <section aria-labelledby="measure-here" className="mt-3 sheet p-3">
      <MeasureChoice
        measure={measure}
        setMeasure={setMeasure}
        feature={feature}
        setFeature={setFeature}
        shown={shown}
        region={region}
        onRegion={onRegion}
        onDraw={onDraw}
        isReady={isReady}
        isMeasuring={isMeasuring}
        isBlind={isBlind}
        run={run}
      />
      <p className="mt-1 text-xs text-ink-2">
        {isBlind
          ? 'Measuring is off while names are hidden: a figure would reveal them.'
          : `${inWords(measure)}: ${ADVICE[measure]}.`}
      </p>
      {message && (
        <p role="alert" className="mt-1 text-warn">
          {message}
        </p>
      )}
      {!isBlind && (
        <MeasuredTable
          shown={shown}
          measure={measure}
          onRegion={onRegion}
          setFeature={setFeature}
          change={change}
          base={base}
        />
      )}
    </section>
  );
}

interface MeasuredTableProps {
  shown: MeasureHereProps['shown'];
  measure: 'layer-lines' | 'ringing' | 'strings' | 'gaps' | 'texture';
  onRegion: MeasureHereProps['onRegion'];
  setFeature: Dispatch<SetStateAction<string>>;
  change: MeasureHereProps['change'];
  base: string;
}

/** What was measured. */
function MeasuredTable({ shown, measure, onRegion, setFeature, change, base }: MeasuredTableProps) {
  return (
    <div className="overflow-x-auto">
      <table className="mt-2 w-full text-xs">
        <thead>
          <tr>
            {['photo', 'at', 'figure', ''].map((head) => (
              <th key={head} className="th" scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.flatMap(({ photo, contender, code }) =>
            photo.measures
              .filter((one) => one.measure === measure)
              .map((one) => (
                <MeasureRow
                  key={one.measure_id}
                  one={one}
                  contender={contender}
                  code={code}
                  onRegion={onRegion}
                  setFeature={setFeature}
                  change={change}
                  base={base}
                />
              )),
          )}
        </tbody>
      </table>
    </div>
  );
}

interface MeasureRowProps {
  one: ShownMeasure;
  contender: string;
  code: string;
  onRegion: MeasureHereProps['onRegion'];
  setFeature: Dispatch<SetStateAction<string>>;
  change: MeasureHereProps['change'];
  base: string;
}

/** One value that was measured. */
function MeasureRow({ one, contender, code, onRegion, setFeature, change, base }: MeasureRowProps) {
  return (
    <tr className="border-b border-line-soft">
      <th scope="row" className="py-1 pr-3 text-left font-normal">
        {contender} <span className="font-mono">{code}</span>
      </th>
      <td className="pr-3 font-mono">
        <button
          type="button"
          className="underline"
          onClick={() => {
            if (one.unit !== 'mm') return;
            onRegion({ x: one.x, y: one.y, w: one.w, h: one.h });
            setFeature(one.feature ?? '');
          }}
        >
          {[one.x, one.y, one.w, one.h].map(rounded).join(', ')} {one.unit}
        </button>
      </td>
      <td className="pr-3">{describeMeasure(one)}</td>
      <td className="text-right">
        <button
          type="button"
          className="action text-xs"
          aria-label={`Remove the measure of ${code}`}
          onClick={() =>
            void change(() => callApi('DELETE', `${base}/${encodeURIComponent(one.measure_id)}`))
          }
        >
          Remove
        </button>
      </td>
    </tr>
  );
}

interface MeasureChoiceProps {
  measure: 'layer-lines' | 'ringing' | 'strings' | 'gaps' | 'texture';
  setMeasure: Dispatch<SetStateAction<'layer-lines' | 'ringing' | 'strings' | 'gaps' | 'texture'>>;
  feature: string;
  setFeature: Dispatch<SetStateAction<string>>;
  shown: MeasureHereProps['shown'];
  region: MeasureHereProps['region'];
  onRegion: MeasureHereProps['onRegion'];
  onDraw: () => void;
  isReady: boolean;
  isMeasuring: boolean;
  isBlind: boolean;
  run: () => Promise<void>;
}

/** What is measured, where, and the key that does it. */
function MeasureChoice({
  measure,
  setMeasure,
  feature,
  setFeature,
  shown,
  region,
  onRegion,
  onDraw,
  isReady,
  isMeasuring,
  isBlind,
  run,
}: MeasureChoiceProps) {
  return (
    <div className="flex flex-wrap items-end gap-2">
      <h2 id="measure-here" className="font-semibold">
        Measured in place
      </h2>
      <label className="text-xs text-ink-2">
        measure
        <select
          className="block field w-36"
          value={measure}
          onChange={(event) => setMeasure(chosenOf(event, PHOTO_MEASURES))}
        >
          {PHOTO_MEASURES.map((one) => (
            <option key={one} value={one}>
              {inWords(one)}
            </option>
          ))}
        </select>
      </label>
      <label
        className="text-xs text-ink-2"
        data-hint="Figures of different directions are stored separately"
      >
        along
        <input
          className="block field w-28"
          list="measured-features"
          placeholder="all of it"
          maxLength={40}
          value={feature}
          onChange={(event) => setFeature(event.target.value)}
        />
        <datalist id="measured-features">
          {featuresOf(shown).map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
      </label>
      {(['x', 'y', 'w', 'h'] as const).map((side) => (
        <label key={side} className="text-xs text-ink-2">
          {SIDES[side]}, mm
          <input
            className="block field w-20"
            type="number"
            step={0.1}
            value={region ? rounded(region[side]) : ''}
            onChange={(event) =>
              onRegion({ ...(region ?? NOWHERE), [side]: Number(event.target.value) })
            }
          />
        </label>
      ))}
      <button type="button" className="action" onClick={onDraw}>
        Draw it on a photo <kbd className="key">R</kbd>
      </button>
      <button
        type="button"
        className="action action-main"
        data-keys="M"
        data-does="measure the region on all photos"
        disabled={!isReady || isMeasuring || isBlind}
        onClick={() => void run()}
      >
        Measure on all {shown.length || ''} <kbd className="key">M</kbd>
      </button>
      {isMeasuring && <progress aria-label="Measuring" />}
    </div>
  );
}

/** The directions that can be chosen: those of the plate, and what was measured along before. */
const featuresOf = (shown: MeasureHereProps['shown']): string[] => [
  ...new Set([
    'x',
    'y',
    ...shown.flatMap(({ photo }) => photo.measures.flatMap((one) => one.feature ?? [])),
  ]),
];

const SIDES = { x: 'left', y: 'lower', w: 'wide', h: 'high' } as const;
const NOWHERE = { x: 0, y: 0, w: 10, h: 10 };
const rounded = (value: number): number => Number(value.toFixed(2));
