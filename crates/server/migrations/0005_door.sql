-- The shop's passphrase, as argon2id makes it; none while nobody needs one.
create table passphrase (
    only_one  integer primary key check (only_one = 1),
    hash      text    not null
) strict;

-- Devices that said it. What they show from then on is kept as its SHA-256 alone.
create table device (
    id        text    primary key,
    token     blob    not null unique,
    name      text    not null,
    known_ms  integer not null
) strict;
