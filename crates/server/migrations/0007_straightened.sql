-- The picture of a face as it lies there: made from the picture of the job, once for each way it was laid.
create table straightened (
    job_id   text    not null references job (id) on delete cascade,
    face_id  text    not null,
    revision integer not null,
    jpeg     blob    not null,
    primary key (job_id, face_id)
) strict;
