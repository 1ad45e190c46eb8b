-- A task is looked for by its id, whichever system it stands in.
DROP INDEX pair_of_target;
CREATE INDEX pair_of_target ON pair (target_record, target_system);
