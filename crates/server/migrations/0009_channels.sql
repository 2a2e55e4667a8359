-- The channels of a logger: what was read before is of the first.
create table reading_of_channel (
    job_id   text    not null references job (id),
    lit_id   text    not null,
    channel  integer not null,
    minutes  real    not null,
    celsius  real    not null,
    primary key (job_id, lit_id, channel, minutes)
) strict, without rowid;

insert into reading_of_channel (job_id, lit_id, channel, minutes, celsius)
select job_id, lit_id, 1, minutes, celsius from reading;

drop table reading;

alter table reading_of_channel rename to reading;
