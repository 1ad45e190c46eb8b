-- While a bridge is held it receives, and delivers nothing.
ALTER TABLE bridge ADD COLUMN held_at TIMESTAMP(9) WITH TIME ZONE;
ALTER TABLE bridge ADD COLUMN held_because VARCHAR(500);

-- A try carries one event by a draft; its tasks are of no pair that counts.
ALTER TABLE trace ADD COLUMN try_document VARCHAR(200000);
ALTER TABLE trace ADD COLUMN taken_back_at TIMESTAMP(9) WITH TIME ZONE;

-- An event that nobody sent: a pasted or handmade sample that was tried for real.
ALTER TABLE event ADD COLUMN made_up BOOLEAN DEFAULT FALSE NOT NULL;

-- Events added by hand to try a draft on.
CREATE TABLE sample (
  id VARCHAR(32) PRIMARY KEY,
  bridge_id VARCHAR(64) NOT NULL,
  -- As CloudEvents JSON.
  event VARCHAR(1048576) NOT NULL,
  added_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  -- Which of the events that were added at once.
  place INT NOT NULL
);
CREATE INDEX sample_of_bridge ON sample (bridge_id, added_at);

CREATE TABLE pinned_example (
  id VARCHAR(32) PRIMARY KEY,
  bridge_id VARCHAR(64) NOT NULL,
  document VARCHAR(1048576) NOT NULL,
  pinned_at TIMESTAMP(9) WITH TIME ZONE NOT NULL
);
CREATE INDEX example_of_bridge ON pinned_example (bridge_id, id);
