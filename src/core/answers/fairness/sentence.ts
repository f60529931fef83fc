import type { FairnessItem, FairnessResult, SideValue } from './finding';

const WORDS: Readonly<Record<string, string>> = {
  mesh: 'mesh',
  layer_height_mm: 'layer height',
  first_layer_height_mm: 'first layer height',
  line_width_mm: 'line width',
  infill_share: 'infill share',
  infill_pattern: 'infill pattern',
  material_type: 'material',
  material_maker: 'maker of the material',
  material_lot: 'lot of the material',
  material_colour: 'colour of the material',
  nozzle_mm: 'nozzle size',
  plate: 'plate surface',
  plate_aid: 'plate aid',
  slicer: 'slicing program',
  slicer_version: 'version of the slicing program',
  origin: 'origin of the profile',
  speed_mode: 'speed mode',
  orientation: 'orientation on the plate',
  copies: 'copies on the plate',
  positions: 'plate positions',
  inspector: 'inspectors',
  ambient_c: 'ambient temperature',
};

/** An item's key as a person says it. */
export const itemWords = (key: string): string =>
  WORDS[key] ?? key.replace(/_mm_s2$|_mm3_s$|_mm_s$|_mm$|_c$/, '').replaceAll('_', ' ');

/** A value of one side as a person reads it. */
export const formatValue = (value: SideValue): string =>
  value === null
    ? 'not known'
    : Array.isArray(value)
      ? value.map(String).join(' and ')
      : typeof value === 'number'
        ? String(Number(value.toPrecision(6)))
        : String(value);

const listed = (texts: readonly string[]): string =>
  texts.length < 2 ? texts.join('') : `${texts.slice(0, -1).join(', ')} and ${texts.at(-1) ?? ''}`;

const against = (item: FairnessItem): string =>
  item.state === 'same'
    ? `${itemWords(item.key)} (${formatValue(item.contender_value)} in both)`
    : `${itemWords(item.key)} (${formatValue(item.contender_value)} against ${formatValue(item.reference_value)})`;

/** What a fairness check found, in one sentence, the worst first. */
export function describeFairness(result: FairnessResult, items: readonly FairnessItem[]): string {
  if (result === 'clean') return 'Clean: nothing differs but what is compared.';
  const differing = items.filter((item) => item.state === 'different' && !item.varies);
  const held = differing.filter((item) => item.role === 'held');
  const noted = differing.filter((item) => item.role === 'noted');
  const varying = items.filter((item) => item.varies);
  const unknown = items.filter(
    (item) => item.state === 'unknown' && item.role === 'held' && !item.varies,
  );
  const parts = [
    ...(held.length > 0
      ? [`${listed(held.map(against))} ${held.length > 1 ? 'differ' : 'differs'} and must be equal`]
      : []),
    ...(varying.length > 0 ? [`within one contender: ${listed(varying.map(against))}`] : []),
    ...(noted.length > 0 ? [`also different: ${listed(noted.map(against))}`] : []),
    ...(unknown.length > 0
      ? [`not known: ${listed(unknown.map((item) => itemWords(item.key)))}`]
      : []),
  ];
  return `${result === 'confounded' ? 'Confounded' : 'Noted'}: ${parts.join('; ')}.`;
}
