/** Keys of machines: each speaks on the bench link under its own name, and may nothing else. */

export const up = `
alter table access_keys drop constraint access_keys_role_check;
alter table access_keys add constraint access_keys_role_check
  check (role in ('evaluator', 'operator', 'reader', 'machine'));
alter table access_keys add column machine_id text check (machine_id ~ '^[^/+#[:space:]]{1,64}$');
alter table access_keys add constraint access_keys_machine_check
  check ((role = 'machine') = (machine_id is not null));
`;

export const down = `
delete from access_keys where role = 'machine';
alter table access_keys drop constraint access_keys_machine_check;
alter table access_keys drop column machine_id;
alter table access_keys drop constraint access_keys_role_check;
alter table access_keys add constraint access_keys_role_check
  check (role in ('evaluator', 'operator', 'reader'));
`;
