import { NothingToInspect } from './NothingToInspect';
import { WhoInspects } from './WhoInspects';
import { SpecimenPicker } from '../../lib/SpecimenPicker';
import type { ContenderMark } from '../../../core/model/study';
import type { BenchZone } from '../../../contract/inspect';
import type { DrawnSides } from '../../../contract/measure';
import { hasRectification, type RectifiedPhoto } from '../../photos/tiles';
import { Badge } from '../../marks/Badge';
import { AfterWorkClock } from './AfterWorkClock';
import { ZoneDrawing } from './ZoneDrawing';
import { ZoneList } from './ZoneList';
import { ZonePhoto } from './ZonePhoto';
import { useInspecting, type Inspecting, type InspectBenchProps } from './use-inspecting';
import { ZoneSheet } from './ZoneSheet';

/** Zone by zone, specimen by specimen: a defect by its first letters, then its grade. */
export function InspectBench({
  studyId,
  marks,
  specimens,
  zones,
  drawings,
  aftercare,
  asked,
  askedZone,
  artefacts,
  ...initial
}: InspectBenchProps) {
  const bench = useInspecting({ studyId, initial, specimens, asked, zones, askedZone, aftercare });
  const { specimen, zone } = bench;

  if (!specimen) {
    return <NothingToInspect studyId={studyId} artefacts={artefacts} />;
  }
  const mark = marks.find((one) => one.contender_id === specimen.contender_id);
  const sides = drawings[specimen.artefact_id];
  const seen = bench.photos
    .filter(hasRectification)
    .filter(
      ({ filed }) => filed?.specimen_id === bench.specimenId && filed.view === zone?.place?.side,
    );
  const done = bench.own.filter(
    (one) => bench.words.of(bench.specimenId, one.zone_id) !== undefined,
  ).length;
  return (
    <>
      <InspectHead
        mark={mark}
        specimens={specimens}
        specimen={specimen}
        bench={bench}
        done={done}
        studyId={studyId}
      />
      <div className="grid items-start gap-3 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
        <ZonesSeen
          zone={zone}
          seen={seen}
          bench={bench}
          studyId={studyId}
          sides={sides}
          specimen={specimen}
        />
        {bench.inspector.trim() === '' ? (
          <WhoInspects />
        ) : (
          zone && <ZoneSheet bench={bench} zone={zone} specimen={specimen} />
        )}
      </div>
      <AfterWorkClock
        key={`${bench.specimenId} ${bench.inspector}`}
        studyId={studyId}
        specimenId={bench.specimenId}
        operator={bench.inspector.trim()}
        known={bench.care}
        onKept={bench.keepCare}
      />
    </>
  );
}

interface InspectHeadProps {
  mark: ContenderMark | undefined;
  specimens: InspectBenchProps['specimens'];
  specimen: NonNullable<Inspecting['specimen']>;
  bench: Inspecting;
  done: number;
  studyId: string;
}

/** Which specimen is at hand, and how far it is. */
function InspectHead({ mark, specimens, specimen, bench, done, studyId }: InspectHeadProps) {
  return (
    <div className="mb-3 flex flex-wrap items-center gap-3">
      <h1 className="text-lg font-semibold">Inspect</h1>
      {mark && <Badge mark={mark} />}
      <SpecimenPicker
        specimens={specimens}
        value={specimen.specimen_id}
        onChoose={bench.openSpecimen}
      />
      <span className="text-xs text-ink-2">
        {done} of {bench.own.length} zones looked at{bench.inspector && ` by ${bench.inspector}`}
      </span>
      <a
        className="action md:ml-auto"
        href={`/studies/${studyId}/inspect/photos?specimen=${encodeURIComponent(specimen.specimen_id)}`}
      >
        Open photos
      </a>
      <button type="button" className="action" onClick={() => bench.toSpecimen(1)}>
        Next specimen <kbd className="key">PgDn</kbd>
      </button>
    </div>
  );
}

interface ZonesSeenProps {
  zone: BenchZone | undefined;
  seen: RectifiedPhoto[];
  bench: Inspecting;
  studyId: string;
  sides: DrawnSides | undefined;
  specimen: NonNullable<Inspecting['specimen']>;
}

/** The zone on its photo, or on the drawing, and the list of zones. */
function ZonesSeen({ zone, seen, bench, studyId, sides, specimen }: ZonesSeenProps) {
  return (
    <div className="grid gap-3">
      {zone && seen.length > 0 ? (
        <ZonePhoto
          key={bench.specimenId}
          studyId={studyId}
          zone={zone}
          photos={seen}
          findings={bench.word ?? []}
          onBox={bench.placeLast}
        />
      ) : (
        sides && (
          <ZoneDrawing
            artefact={specimen.artefact}
            sides={sides}
            zones={bench.own}
            present={zone?.zone_id ?? null}
            onChoose={(id) => bench.setPlace(bench.own.findIndex((one) => one.zone_id === id))}
          />
        )
      )}
      <ZoneList
        zones={bench.own}
        present={bench.place}
        wordOf={(id) => bench.words.of(bench.specimenId, id)}
        onChoose={bench.openZone}
      />
    </div>
  );
}
