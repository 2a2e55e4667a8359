-- Devices that were turned out, by what they show: each is told so when it asks again, and lets go of what it keeps.
create table turned_out (
    token   blob    primary key,
    out_ms  integer not null
) strict;
