-- Pictures of a job, already turned upright and without anything but the picture itself. Each belongs
-- to the fact that added it; of one that was taken back the picture stays, so that it can be put back.
create table picture (
    job_id  text    not null references job (id),
    id      text    not null,
    width   integer not null,
    height  integer not null,
    jpeg    blob    not null,
    small   blob    not null,
    primary key (job_id, id)
) strict;
