-- A helper's phone: the one job at whose torch it sees and logs. Nothing for a device that said the passphrase.
alter table device add column helps text;
