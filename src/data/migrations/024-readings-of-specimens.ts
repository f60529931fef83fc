/**
 * A reading's study is that of its specimen: one key holds both, and is looked at once a reading. It
 * goes with its study as all rows do.
 */

export const up = `
alter table readings drop constraint readings_study_id_fkey;
create function readings_go_with_their_study() returns trigger language plpgsql as $$
begin
  delete from readings where study_id = old.study_id;
  return old;
end $$;
create trigger readings_go_with_their_study before delete on studies
  for each row execute function readings_go_with_their_study();
`;

export const down = `
drop trigger readings_go_with_their_study on studies;
drop function readings_go_with_their_study();
alter table readings add constraint readings_study_id_fkey
  foreign key (study_id) references studies on delete cascade;
`;
