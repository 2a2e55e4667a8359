-- What of the shop each line was worked out from, as one number: a change of anything else leaves the line as it is.
-- Nothing for what was worked out before this was kept: it is worked out anew.
alter table rack_line add column planned_by integer;
