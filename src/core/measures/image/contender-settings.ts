import { groupBy, type Tables } from '../../model/study';

/** What a contender's profile says that measures on photos need. */
export interface ContenderSettings {
  layer_height_mm: number | null;
  /** Speed of the outer wall, mm/s. */
  speed_mm_s: number | null;
}

const numberOf = (text: string | undefined): number | null => {
  const value = Number(text);
  return text !== undefined && text !== '' && Number.isFinite(value) && value > 0 ? value : null;
};

/** By contender, what its profile says of layers and walls; null where it says nothing that can be. */
export function contenderSettings({
  contenders,
  profile_settings,
}: Pick<Tables, 'contenders' | 'profile_settings'>): Record<string, ContenderSettings> {
  const byProfile = groupBy(profile_settings, (row) => row.profile_id);
  return Object.fromEntries(
    contenders.map(({ contender_id, profile_id }) => {
      const of = (key: string) => byProfile.get(profile_id)?.find((row) => row.key === key)?.value;
      return [
        contender_id,
        {
          layer_height_mm: numberOf(of('layer_height_mm')),
          speed_mm_s: numberOf(of('speed_outer_wall_mm_s')),
        },
      ];
    }),
  );
}
