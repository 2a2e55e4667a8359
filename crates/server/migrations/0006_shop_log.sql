-- The shop is what was said of it, as a job is: its settings become the first words of its log. The last of
-- them has the revision that all settings had together, so that nothing is worked out anew.
create table shop_fact (
    revision     integer primary key,
    id           text    not null unique,
    at_client_ms integer not null,
    at_server_ms integer not null,
    who          text    not null,
    sender       text    not null,
    change       text    not null,
    understood   text
) strict;

insert into shop_fact (revision, id, at_client_ms, at_server_ms, who, sender, change)
select
    (select sum(revision) from shop_value) - (select count(*) from shop_value) + row_number() over (order by key),
    lower(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2)
        || '-8' || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6))),
    0, 0, '', '',
    json_object('kind', 'set', 'key', key, 'typed', typed, 'shown_in', shown_in)
from shop_value;

drop table shop_value;
