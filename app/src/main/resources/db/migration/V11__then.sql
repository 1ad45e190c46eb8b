-- What comes after the tasks of an event is a delivery with a name, and a pair; a task has none.
ALTER TABLE delivery ADD COLUMN effect_name VARCHAR(64);
ALTER TABLE pair ADD COLUMN effect_name VARCHAR(64);
-- Which of several tasks of a record a pair is of: its name in a set, or its item. Empty where there
-- is one; null where it was made before this was kept.
ALTER TABLE pair ADD COLUMN part VARCHAR(1000);
-- What was made of a record is found by it.
CREATE INDEX pair_of_record ON pair (bridge_id, source_record);
