import { surfaceEvidence, zoneEvidence } from '../../evidence';
import {
  aftercareOfAll,
  defectsOfAll,
  photosOfAll,
  surfaceAgreement,
  surfaceOfAll,
} from '../../../measures/surface';
import { PRINTED, type Section } from '../section';

/** What an inspection of surfaces hangs on. */
export const INSPECTED = [...PRINTED, 'zones', 'inspections', 'findings'] as const;

/** How clean each contender's parts come out. */
export const surface: Section<'surface'> = {
  name: 'surface',
  needs: INSPECTED,
  usesReference: false,
  compute: ({ index, alpha, has }) => (has('inspections') ? surfaceOfAll(index, alpha) : null),
  evidence: ({ index, has }, { contender, key }) =>
    has('inspections') && ['index', 'coverage'].includes(key)
      ? surfaceEvidence(index, contender)
      : null,
};

/** Where the defects sit, and in which materials. */
export const defects: Section<'defects'> = {
  name: 'defects',
  needs: [...INSPECTED, 'materials'],
  usesReference: false,
  compute: ({ index, has }) => (has('inspections') ? defectsOfAll(index) : null),
  evidence: ({ index }, { who, contender, key }) => {
    // `defects:zones:<contender>.<artefact>/<zone>.mean`
    const zone = key.slice(contender.length + 1).replace(/\.[a-z]+$/, '');
    return who === 'zones' ? zoneEvidence(index, contender, zone) : null;
  },
};

/** How well the inspectors agree. */
export const surface_agreement: Section<'surface_agreement'> = {
  name: 'surface_agreement',
  needs: INSPECTED,
  usesReference: false,
  compute: ({ index, has }) => (has('inspections') ? surfaceAgreement(index) : null),
};

/** What was measured on photos. */
export const photo: Section<'photo'> = {
  name: 'photo',
  needs: [...PRINTED, 'photos', 'photo_measures'],
  usesReference: false,
  compute: ({ index, alpha, has }) => (has('photo_measures') ? photosOfAll(index, alpha) : null),
};

/** What hands did to the parts once they were printed. */
export const aftercare: Section<'aftercare'> = {
  name: 'aftercare',
  needs: [...PRINTED, 'aftercare'],
  usesReference: false,
  compute: ({ index, alpha, has }) => (has('aftercare') ? aftercareOfAll(index, alpha) : null),
};
