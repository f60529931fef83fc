import type { SetStateAction, Dispatch } from 'react';
import type { ArtefactData } from '../../contract/artefacts';
import type { Stored } from '../../contract/rows';
import type { Picked } from './Picking';
import { fixed, signed } from '../lib/format';
import { NewDimension } from './NewDimension';
import { Leaving } from '../kit/Leaving';

interface DimensionsProps {
  sheet: ArtefactSheetProps['sheet'];
  isSetting: boolean;
  setSetting: Dispatch<SetStateAction<boolean>>;
  setPicked: Dispatch<SetStateAction<Picked>>;
  studyId: string;
  artefactId: string;
  picked: Picked;
  setDimensions: Dispatch<SetStateAction<Stored<'dimensions'>[]>>;
  setPlaces: Dispatch<SetStateAction<Stored<'dimension_places'>[]>>;
  setMessage: Dispatch<SetStateAction<string | null>>;
  message: string | null;
  dimensions: Stored<'dimensions'>[];
  retired: ReadonlySet<string>;
  present: string | null;
  setPresent: Dispatch<SetStateAction<string | null>>;
  bringBack: (row: Stored<'dimensions'>) => Promise<void>;
  takeOut: (row: Stored<'dimensions'>) => Promise<void>;
}

/** The dimensions, and the form for a new one. */
export function Dimensions({
  sheet,
  isSetting,
  setSetting,
  setPicked,
  studyId,
  artefactId,
  picked,
  setDimensions,
  setPlaces,
  setMessage,
  message,
  dimensions,
  retired,
  present,
  setPresent,
  bringBack,
  takeOut,
}: DimensionsProps) {
  return (
    <section className="min-w-0 sheet" aria-label="Dimensions">
      <DimensionsHead
        sheet={sheet}
        isSetting={isSetting}
        setSetting={setSetting}
        setPicked={setPicked}
      />
      {isSetting && sheet && (
        <NewDimension
          studyId={studyId}
          artefactId={artefactId}
          places={sheet.places}
          picked={picked}
          onPick={setPicked}
          onAdded={(dimension, place) => {
            setDimensions((all) => [...all, dimension]);
            setPlaces((all) => [...all, place]);
            setMessage(`${String(dimension.name)} is set.`);
          }}
        />
      )}
      <p role="status" className="px-3 text-xs text-ink-2">
        {message}
      </p>
      {dimensions.length > 0 && (
        <Leaving>
          <table className="w-full">
            <thead>
              <tr className="border-b border-line">
                <th className="th">dimension</th>
                <th className="th text-right">nominal</th>
                <th className="th text-right">limits</th>
                <th className="th">kind</th>
                <th className="th">
                  <span className="sr-only">remove</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {dimensions.map((row) => {
                const id = String(row.dimension_id);
                const isRetired = retired.has(id);
                return (
                  <DimensionRow
                    key={id}
                    id={id}
                    present={present}
                    isRetired={isRetired}
                    setPresent={setPresent}
                    row={row}
                    bringBack={bringBack}
                    takeOut={takeOut}
                  />
                );
              })}
            </tbody>
          </table>
        </Leaving>
      )}
      {dimensions.length === 0 && <p className="px-3 py-2 text-ink-2">None yet.</p>}
    </section>
  );
}

interface DimensionsHeadProps {
  sheet: DimensionsProps['sheet'];
  isSetting: boolean;
  setSetting: DimensionsProps['setSetting'];
  setPicked: DimensionsProps['setPicked'];
}

/** The key that begins to set a dimension. */
function DimensionsHead({ sheet, isSetting, setSetting, setPicked }: DimensionsHeadProps) {
  return (
    <header className="flex items-center justify-between gap-2 border-b border-line px-3 py-2">
      <h2 className="font-semibold">Dimensions</h2>
      {sheet && (
        <button
          type="button"
          className="action"
          aria-pressed={isSetting}
          onClick={() => {
            setSetting(!isSetting);
            setPicked([]);
          }}
        >
          {isSetting ? 'Done' : 'Set a dimension'}
        </button>
      )}
    </header>
  );
}

interface DimensionRowProps {
  id: string;
  present: string | null;
  isRetired: boolean;
  setPresent: Dispatch<SetStateAction<string | null>>;
  row: Stored<'dimensions'>;
  bringBack: (row: Stored<'dimensions'>) => Promise<void>;
  takeOut: (row: Stored<'dimensions'>) => Promise<void>;
}

/** One dimension: shown where it is on the drawing, taken out, brought back. */
function DimensionRow({
  id,
  present,
  isRetired,
  setPresent,
  row,
  bringBack,
  takeOut,
}: DimensionRowProps) {
  return (
    <tr
      className={
        `border-b border-line-soft ${present === id ? 'bg-plum-soft' : ''} ` +
        `${isRetired ? 'text-ink-2' : ''}`
      }
    >
      <th scope="row" className="p-0 text-left font-normal">
        <button
          type="button"
          className="block w-full px-2 py-1 text-left hover:bg-plum-soft"
          aria-pressed={present === id}
          onClick={() => setPresent(present === id ? null : id)}
        >
          {row.name}
          {isRetired && ' · retired'}
        </button>
      </th>
      <td className="px-2 text-right font-mono">{fixed(Number(row.nominal_mm), 2)}</td>
      <td className="px-2 text-right font-mono whitespace-nowrap">
        <Limits lower={row.lower_tol_mm} upper={row.upper_tol_mm} />
      </td>
      <td className="px-2 text-xs text-ink-2">
        {row.kind}
        {row.axis !== 'none' && ` ${String(row.axis)}`}
      </td>
      <td className="px-1 text-right">
        {isRetired ? (
          <button
            type="button"
            className="px-1 text-xs text-plum underline"
            aria-label={`Bring ${String(row.name)} back`}
            onClick={() => void bringBack(row)}
          >
            bring back
          </button>
        ) : (
          <button
            type="button"
            className="px-1 text-plum"
            aria-label={`Take ${String(row.name)} out`}
            onClick={() => void takeOut(row)}
          >
            ×
          </button>
        )}
      </td>
    </tr>
  );
}

function Limits({ lower, upper }: { lower: unknown; upper: unknown }) {
  if (typeof lower !== 'number' && typeof upper !== 'number') return <>none</>;
  if (typeof lower === 'number' && lower === -Number(upper)) return <>± {fixed(-lower, 2)}</>;
  const side = (value: unknown) => (typeof value === 'number' ? signed(value, 2) : '…');
  return (
    <>
      {side(lower)} {side(upper)}
    </>
  );
}

export interface ArtefactSheetProps extends ArtefactData {
  studyId: string;
}
