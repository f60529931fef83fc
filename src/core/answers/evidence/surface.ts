import { inspectedSpecimens, surfaceValues, type InspectedSpecimen } from '../../measures/surface';
import { counted, inWords, type StudyIndex } from '../../model/study';
import { stratumName } from './strata';
import { evidenceTable, type Evidence } from './evidence';

const codeOf = ({ specimen }: InspectedSpecimen): string => specimen.code ?? specimen.specimen_id;

/** The grades of a zone as inspectors gave them: `LK ringing 2 · TS clean`. */
function gradesOf(index: StudyIndex, specimenId: string, zoneId: string): string {
  const { findings, inspections } = index.study.tables;
  const is = (row: { specimen_id: string; zone_id: string }) =>
    row.specimen_id === specimenId && row.zone_id === zoneId;
  return inspections
    .filter(is)
    .map(({ inspector }) => {
      const own = findings.filter((row) => is(row) && row.inspector === inspector);
      const said = own.map((row) => `${inWords(row.defect)} ${row.grade}`).join(', ');
      return `${inspector} ${said || 'clean'}`;
    })
    .join(' · ');
}

const zoneNames = (index: StudyIndex): Map<string, string> =>
  new Map(
    index.study.tables.zones.map((row) => [`${row.artefact_id}/${row.zone_id}`, row.name] as const),
  );

/** Evidence of a contender's surface index. */
export function surfaceEvidence(index: StudyIndex, contenderId: string): Evidence {
  const own = inspectedSpecimens(index).get(contenderId) ?? [];
  const names = zoneNames(index);
  const rows = own
    .flatMap((one) => one.zones.map((zone) => ({ one, zone })))
    .sort((a, b) => b.zone.severity * b.zone.weight - a.zone.severity * a.zone.weight);
  const prints = [...surfaceValues(index)(contenderId).values()].flat().length;
  return {
    title: 'Surface index',
    sentence: `${counted(own.length, 'specimen')} of ${counted(prints, 'print')} were inspected; 100 is a clean part.`,
    formula:
      '100·(1 − Σ weight·severity/(4·Σ weight)) over the zones that were looked at; a zone’s ' +
      'severity is its worst defect, each the mean grade over the inspectors who looked there. ' +
      'Specimens to prints to the contender, interval from t.',
    tables: [
      evidenceTable(
        'Zones, what weighs most first',
        ['specimen', 'zone', ['weight'], ['severity'], { label: 'grades', isList: true }],
        rows.map(({ one, zone }) => [
          codeOf(one),
          names.get(`${one.artefact_id}/${zone.zone_id}`) ?? zone.zone_id,
          zone.weight,
          zone.severity.toFixed(1),
          gradesOf(index, one.specimen.specimen_id, zone.zone_id),
        ]),
      ),
      evidenceTable(
        'Specimens',
        ['specimen', 'print', ['index'], ['coverage %']],
        own.map((one) => [
          codeOf(one),
          one.specimen.print_id,
          one.index === null ? null : one.index.toFixed(1),
          one.coverage === null ? null : (100 * one.coverage).toFixed(0),
        ]),
      ),
    ],
    notes: [],
  };
}

/**
 * Evidence of how a zone comes out with a contender.
 *
 * @param place `artefact:zone`
 */
export function zoneEvidence(
  index: StudyIndex,
  contenderId: string,
  place: string,
): Evidence | null {
  const [artefact = '', zoneId = ''] = place.split('/');
  const name = zoneNames(index).get(place);
  const own = (inspectedSpecimens(index).get(contenderId) ?? []).flatMap((one) =>
    one.artefact_id === artefact
      ? one.zones.filter((zone) => zone.zone_id === zoneId).map((zone) => ({ one, zone }))
      : [],
  );
  if (name === undefined || own.length === 0) return null;
  own.sort((a, b) => b.zone.severity - a.zone.severity);
  const clean = own.filter(({ zone }) => zone.severity === 0).length;
  return {
    title: `${index.artefacts.get(artefact)?.name ?? artefact}, ${name}`,
    sentence: `Looked at on ${counted(own.length, 'specimen')}, clean on ${clean}.`,
    formula: 'Severity is the worst defect, each the mean grade over the inspectors who looked.',
    tables: [
      evidenceTable(
        'Specimens, the worst first',
        ['specimen', 'print', ['severity'], 'worst', { label: 'grades', isList: true }],
        own.map(({ one, zone }) => [
          codeOf(one),
          one.specimen.print_id,
          zone.severity.toFixed(1),
          zone.severity > 0 ? inWords(zone.defects[0]?.defect ?? '') : null,
          gradesOf(index, one.specimen.specimen_id, zoneId),
        ]),
      ),
    ],
    notes: [],
  };
}

/** Evidence of a contender's surface against the reference. */
export function surfacePairEvidence(
  index: StudyIndex,
  contenderId: string,
  reference: string,
): Evidence {
  const valuesOf = surfaceValues(index);
  const side = (title: string, id: string) =>
    evidenceTable(
      title,
      ['artefact and material', ['print means']],
      [...valuesOf(id)].map(([stratum, values]) => [
        stratumName(index, stratum),
        values.map((value) => value.toFixed(1)).join(' · '),
      ]),
    );
  return {
    title: 'Surface index against the reference',
    sentence:
      'Contender less reference, over the artefacts, each in one material, of which both have inspected prints.',
    formula:
      'Difference of the means over artefacts and materials of the print means; interval from t ' +
      'with Satterthwaite’s degrees of freedom, shared out over the comparisons after Šidák.',
    tables: [
      side('Prints of the contender', contenderId),
      side('Prints of the reference', reference),
    ],
    notes: [],
  };
}
