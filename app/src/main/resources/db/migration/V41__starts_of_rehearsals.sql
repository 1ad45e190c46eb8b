-- How often a rehearsal began, so that one which breaks everything off is not begun for ever.
ALTER TABLE rehearsal ADD COLUMN starts INT DEFAULT 0 NOT NULL;
