-- What was understood of a fact when it was said, beside what was typed. Empty where there is nothing to be
-- understood; null until it has been looked at, for what was said before this was kept.
alter table fact add column understood text;

create index fact_to_understand on fact (job_id) where understood is null;

-- The line of each job on the rack, worked out from its log and stored with each fact of it. It can be
-- made again at any time: nothing is lost with it.
create table rack_line (
    job_id         text    primary key references job (id) on delete cascade,
    -- Of the job's log and of the shop's settings it was worked out from, and the build that did.
    revision       integer not null,
    shop_revision  integer not null,
    build          text    not null,
    created_ms     integer not null,
    put_away       integer not null,
    -- As it stands until it turns by itself, UTC in ms since 1970; null for never.
    on_rack        integer not null,
    rank           integer not null,
    next_ms        integer not null,
    turns_ms       integer,
    longest_min    real    not null,
    heated         integer not null,
    words          text    not null,
    line           text    not null,
    standings      text    not null
) strict;

-- What orders, finds and counts the lines stands in the indexes: the lines themselves are read for those
-- that are shown.
create index rack_line_order
    on rack_line (on_rack, rank, next_ms, created_ms desc, job_id, words, longest_min);
create index rack_line_away
    on rack_line (put_away, rank, next_ms, created_ms desc, job_id, words, longest_min);
create index rack_line_turns on rack_line (turns_ms) where turns_ms is not null;
create index rack_line_heated on rack_line (job_id) where heated;
