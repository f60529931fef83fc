/** Whoever listens hears of every change of a study as soon as it is committed. */

export const up = `
create function tell_study_change() returns trigger language plpgsql as $$
begin
  perform pg_notify('vergleich_studies', json_build_object(
    'study_id', new.study_id,
    'revision', new.revision::text,
    'is_gone', new.deleted_at is not null,
    'tab', nullif(current_setting('vergleich.tab', true), ''),
    'parts', (
      select coalesce(json_agg(key), '[]') from jsonb_each_text(new.touched)
      where value = new.revision::text
    )
  )::text);
  return null;
end $$;
create trigger study_change_told after update of revision, deleted_at on studies
  for each row when (
    old.revision is distinct from new.revision or old.deleted_at is distinct from new.deleted_at
  )
  execute function tell_study_change();
`;

export const down = `
drop trigger study_change_told on studies;
drop function tell_study_change();
`;
