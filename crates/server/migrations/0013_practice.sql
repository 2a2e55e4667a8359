-- Practices lie beside the jobs of the rack, never among them. What learners handed back is kept by its practice.
alter table rack_line add column practice integer not null default 0;
create table practice_result (
    practice text primary key not null,
    at_ms integer not null,
    result text not null
);
