-- Tasks that others removed, and what is known of our own writing.

-- Its task was removed by others and is left so.
ALTER TABLE pair ADD COLUMN left_so BOOLEAN DEFAULT FALSE NOT NULL;
-- How many of its tasks were removed by others and given up.
ALTER TABLE pair ADD COLUMN anew INT DEFAULT 0 NOT NULL;
-- What tells the last states that we brought its task to, each on a line, the newest first.
ALTER TABLE pair ADD COLUMN marks VARCHAR(2000) DEFAULT '' NOT NULL;

CREATE INDEX pair_of_target ON pair (target_system, target_record);
