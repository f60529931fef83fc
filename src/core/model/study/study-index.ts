import { groupBy } from './grouping';
import { strataOf, type Strata } from './strata';
import type { Study } from './study';
import type {
  Artefact,
  Contender,
  Dimension,
  Incident,
  Instrument,
  Machine,
  Material,
  Print,
  Profile,
  Row,
  Specimen,
} from './tables';

/** The rows of a study, found by id and by what they belong to. */
export interface StudyIndex extends Strata {
  study: Study;
  machines: ReadonlyMap<string, Machine>;
  profiles: ReadonlyMap<string, Profile>;
  contenders: ReadonlyMap<string, Contender>;
  artefacts: ReadonlyMap<string, Artefact>;
  materials: ReadonlyMap<string, Material>;
  prints: ReadonlyMap<string, Print>;
  specimens: ReadonlyMap<string, Specimen>;
  instruments: ReadonlyMap<string, Instrument>;
  /** Dimensions by `artefact_id/dimension_id`; those that are retired are not here. */
  dimensions: ReadonlyMap<string, Dimension>;
  printsOfContender: ReadonlyMap<string, readonly Print[]>;
  /** The materials of prints that were of several, by their slots. */
  materialsOfPrint: ReadonlyMap<string, readonly Row<'print_materials'>[]>;
  specimensOfPrint: ReadonlyMap<string, readonly Specimen[]>;
  incidentsOfPrint: ReadonlyMap<string, readonly Incident[]>;
}

const byKey = <Item>(items: readonly Item[], keyOf: (item: Item) => string): Map<string, Item> =>
  new Map(items.map((item) => [keyOf(item), item]));

/** The key of something that is named within its artefact. */
export const withinArtefact = (artefactId: string, localId: string): string =>
  `${artefactId}/${localId}`;

/** Finds every row of a study by its id once, so that the calculations need not search. */
export function indexStudy(study: Study): StudyIndex {
  const { tables } = study;
  const retired = new Set(
    tables.retired_dimensions.map((row) => withinArtefact(row.artefact_id, row.dimension_id)),
  );
  const inUse = tables.dimensions.filter(
    (row) => !retired.has(withinArtefact(row.artefact_id, row.dimension_id)),
  );
  return {
    ...strataOf(study),
    study,
    machines: byKey(tables.machines, (row) => row.machine_id),
    profiles: byKey(tables.profiles, (row) => row.profile_id),
    contenders: byKey(tables.contenders, (row) => row.contender_id),
    artefacts: byKey(tables.artefacts, (row) => row.artefact_id),
    materials: byKey(tables.materials, (row) => row.material_id),
    prints: byKey(tables.prints, (row) => row.print_id),
    specimens: byKey(tables.specimens, (row) => row.specimen_id),
    instruments: byKey(tables.instruments, (row) => row.instrument_id),
    dimensions: byKey(inUse, (row) => withinArtefact(row.artefact_id, row.dimension_id)),
    materialsOfPrint: groupBy(tables.print_materials, (row) => row.print_id),
    printsOfContender: groupBy(tables.prints, (row) => row.contender_id),
    specimensOfPrint: groupBy(tables.specimens, (row) => row.print_id),
    incidentsOfPrint: groupBy(
      tables.incidents.filter((row) => row.print_id !== null),
      (row) => row.print_id ?? '',
    ),
  };
}
