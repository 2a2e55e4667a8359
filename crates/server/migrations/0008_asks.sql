-- What each job asks of the stores, as it is planned and as far as it has come: worked out with its line.
alter table rack_line add column asks text not null default '';
