-- Pairs of which a task names another, such as its parent, that is not on the other side so far.
CREATE TABLE synced_wait (
  bridge_id VARCHAR(64) NOT NULL,
  -- The side on which the named task stands, and its id there.
  side VARCHAR(8) NOT NULL,
  record_id VARCHAR(512) NOT NULL,
  pair_hash VARCHAR(64) NOT NULL,
  PRIMARY KEY (bridge_id, side, record_id, pair_hash)
);
CREATE INDEX synced_wait_of_pair ON synced_wait (bridge_id, pair_hash);
