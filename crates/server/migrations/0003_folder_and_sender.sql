-- The data folder's own name, made with it: what waits in a browser belongs to one folder.
create table folder (
    id  text primary key
) strict;
insert into folder (id)
    select lower(hex(randomblob(4))) || '-' || lower(hex(randomblob(2))) || '-4' || substr(lower(hex(randomblob(2))), 2)
        || '-a' || substr(lower(hex(randomblob(2))), 2) || '-' || lower(hex(randomblob(6)));

-- The browser a fact came from, so that everybody takes back their own word; empty where nobody said.
alter table fact add column sender text not null default '';
