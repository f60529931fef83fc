import { useState } from 'react';
import type { MeasuringPlaces, ProposedDimension } from '../../core/geometry/mesh';
import type { Stored } from '../../contract/rows';
import { callApi, failureText } from '../kit/request';
import { useOnce } from '../kit/use-once';
import { readNumber } from '../lib/entry';
import { cornerName, faceName, proposalOf, roundName, type Picked } from './Picking';

interface NewDimensionProps {
  studyId: string;
  artefactId: string;
  places: MeasuringPlaces;
  picked: Picked;
  onPick: (picked: Picked) => void;
  onAdded: (dimension: Stored<'dimensions'>, place: Stored<'dimension_places'>) => void;
}

interface Kept {
  dimension: Stored<'dimensions'>;
  place: Stored<'dimension_places'>;
}

const isCorner = (id: string): boolean => id.startsWith('corner-');

/** A dimension set on the drawing: what is picked, what the geometry proposes, the limits. */
export function NewDimension(props: NewDimensionProps) {
  const { places, picked, onPick } = props;
  const proposal = proposalOf(places, picked);
  const proposed = proposal !== null && typeof proposal !== 'string' ? proposal : null;
  const usualName = proposed
    ? `${proposed.kind === 'external' || proposed.kind === 'height' ? proposed.axis : proposed.kind} ` +
      `${proposed.nominal_mm}`
    : '';
  const form = useNewDimension(props, proposed, usualName);
  const { message, once, first, isRound, add } = form;
  const choose = (at: 0 | 1, id: string) => {
    const next = at === 0 ? [id] : [first, id];
    onPick(next.filter(Boolean));
  };
  return (
    <form
      className="grid gap-2 p-3"
      aria-label="New dimension"
      onSubmit={(event) => {
        event.preventDefault();
        once('add', add);
      }}
    >
      <p className="text-xs text-ink-2">
        Pick two parallel faces, one hole or boss, or two corners in the drawing, or here:
      </p>
      <FromPlace first={first} choose={choose} places={places} />
      {!isRound && first !== '' && (
        <ToPlace picked={picked} choose={choose} places={places} first={first} />
      )}
      {typeof proposal === 'string' && (
        <p role="alert" className="text-xs text-warn">
          Not a dimension: {proposal}.
        </p>
      )}
      {proposed && (
        <>
          <p>
            <b className="font-mono">{proposed.nominal_mm}</b> mm · {proposed.kind}
            {proposed.axis !== 'none' && ` along ${proposed.axis}`}
          </p>
          {proposed.note && <p className="text-xs text-ink-2">{proposed.note}</p>}
          <DimensionFields form={form} usualName={usualName} proposal={proposed} />
          <button type="submit" className="justify-self-start action-main">
            Set this dimension
          </button>
        </>
      )}
      {message && (
        <p role="alert" className="text-xs text-warn">
          {message}
        </p>
      )}
    </form>
  );
}

interface DimensionFieldsProps {
  form: ReturnType<typeof useNewDimension>;
  usualName: string;
  proposal: ProposedDimension;
}

/** Name, nominal and limit, proposed from the drawing. */
function DimensionFields({ form, usualName, proposal }: DimensionFieldsProps) {
  const { name, setName, nominal, setNominal, limit, setLimit } = form;
  return (
    <div className="grid grid-cols-3 gap-2">
      <label>
        name
        <input
          className="mt-0.5 field"
          value={name ?? usualName}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <label>
        nominal (mm)
        <input
          className="mt-0.5 field text-right font-mono"
          inputMode="decimal"
          value={nominal ?? String(proposal.nominal_mm)}
          onChange={(event) => setNominal(event.target.value)}
        />
      </label>
      <label>
        limit ± mm
        <input
          className="mt-0.5 field text-right font-mono"
          inputMode="decimal"
          value={limit}
          onChange={(event) => setLimit(event.target.value)}
        />
      </label>
    </div>
  );
}

interface FromPlaceProps {
  first: string;
  choose: (at: 0 | 1, id: string) => void;
  places: NewDimensionProps['places'];
}

/** Where it is measured from. */
function FromPlace({ first, choose, places }: FromPlaceProps) {
  return (
    <label>
      from
      <select
        className="mt-0.5 field"
        value={first}
        onChange={(event) => choose(0, event.target.value)}
      >
        <option value="">nothing yet</option>
        {places.rounds.map((round) => (
          <option key={round.id} value={round.id}>
            {roundName(round)}
          </option>
        ))}
        {places.faces.map((face) => (
          <option key={face.id} value={face.id}>
            {faceName(face)}
          </option>
        ))}
        {places.corners.map((corner) => (
          <option key={corner.id} value={corner.id}>
            {cornerName(corner)}
          </option>
        ))}
      </select>
    </label>
  );
}

interface ToPlaceProps {
  picked: Picked;
  choose: (at: 0 | 1, id: string) => void;
  places: NewDimensionProps['places'];
  first: string;
}

/** Where it is measured to. */
function ToPlace({ picked, choose, places, first }: ToPlaceProps) {
  return (
    <label>
      to
      <select
        className="mt-0.5 field"
        value={picked[1] ?? ''}
        onChange={(event) => choose(1, event.target.value)}
      >
        <option value="">nothing yet</option>
        {[
          ...places.faces.map((face) => [face.id, faceName(face)] as const),
          ...places.corners.map((corner) => [corner.id, cornerName(corner)] as const),
        ]
          .filter(([id]) => id !== first && isCorner(id) === isCorner(first))
          .map(([id, said]) => (
            <option key={id} value={id}>
              {said}
            </option>
          ))}
      </select>
    </label>
  );
}

/** What is typed about a new dimension, and how it is added. */
function useNewDimension(
  { picked, places, studyId, artefactId, onPick, onAdded }: NewDimensionProps,
  proposal: ProposedDimension | null,
  usualName: string,
) {
  const [name, setName] = useState<string | null>(null);
  const [nominal, setNominal] = useState<string | null>(null);
  const [limit, setLimit] = useState('0.15');
  const [message, setMessage] = useState<string | null>(null);
  const once = useOnce();
  const first = picked[0] ?? '';
  const isRound = places.rounds.some(({ id }) => id === first);

  const add = async () => {
    if (!proposal) return;
    const size = readNumber(nominal ?? String(proposal.nominal_mm));
    const tolerance = readNumber(limit);
    if ('fault' in size || 'fault' in tolerance || !size.value) {
      setMessage('Nominal and limit must be numbers.');
      return;
    }
    const said = (name ?? usualName).trim();
    const dimension = {
      name: said,
      axis: proposal.axis,
      kind: proposal.kind,
      nominal_mm: size.value,
      lower_tol_mm: tolerance.value === null ? null : -tolerance.value,
      upper_tol_mm: tolerance.value,
    };
    const [x1_mm, y1_mm, z1_mm] = proposal.from;
    const [x2_mm, y2_mm, z2_mm] = proposal.to;
    const place = { x1_mm, y1_mm, z1_mm, x2_mm, y2_mm, z2_mm };
    try {
      const path = `/studies/${studyId}/artefacts/${artefactId}/dimensions`;
      const kept = await callApi<Kept>('POST', path, { dimension, place });
      setName(null);
      setNominal(null);
      setMessage(null);
      onPick([]);
      onAdded(kept.dimension, kept.place);
    } catch (error) {
      setMessage(failureText(error, 'This did not work.'));
    }
  };
  return {
    name,
    setName,
    nominal,
    setNominal,
    limit,
    setLimit,
    message,
    once,
    first,
    isRound,
    add,
  };
}
