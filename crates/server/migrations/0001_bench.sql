-- A job is its log of facts. Times are UTC in ms since 1970.
create table job (
    id          text primary key,
    created_ms  integer not null
) strict;

create table fact (
    job_id        text    not null references job (id),
    revision      integer not null,
    id            text    not null,
    at_client_ms  integer not null,
    at_server_ms  integer not null,
    who           text    not null,
    change        text    not null,
    primary key (job_id, revision),
    unique (job_id, id)
) strict;

-- What the thermocouple recorded, minutes on the job clock since it was lit. It belongs to the fact
-- that lit it: of a lighting that was cancelled no round has anything.
create table reading (
    job_id   text    not null references job (id),
    lit_id   text    not null,
    minutes  real    not null,
    celsius  real    not null,
    primary key (job_id, lit_id, minutes)
) strict, without rowid;

create table shop_value (
    key       text primary key,
    typed     text    not null,
    shown_in  text    not null,
    revision  integer not null
) strict;
